import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { afterEach, beforeAll, beforeEach, expect, it, vi } from "vitest";
import type { Job } from "../../api/types";

vi.stubGlobal("window", { location: { origin: "http://127.0.0.1" } });
let lookOf: (typeof import("./useCheck"))["lookOf"];
beforeAll(async () => {
  ({ lookOf } = await import("./useCheck"));
});

const job = (job_id: string, state: Job["state"]) => ({ job_id, state }) as Job;

let client: QueryClient;
beforeEach(() => {
  client = new QueryClient();
});
afterEach(() => client.clear());

/** What a page that showed the first job is told in the moment that the list names the second. */
const told = (shown: Job, named: Job) => {
  client.setQueryData(lookOf(shown).queryKey, shown);
  const page = new QueryObserver(client, { ...lookOf(shown), enabled: false });
  page.getCurrentResult();
  page.setOptions({ ...lookOf(named), enabled: false });
  return page.getCurrentResult().data;
};

it("a look whose state changed stays known until it is told anew", () =>
  expect(told(job("a", "running"), job("a", "done"))?.job_id).toBe("a"));

it("nothing of another look is shown for it", () =>
  expect(told(job("a", "done"), job("b", "waiting"))).toBeUndefined());
