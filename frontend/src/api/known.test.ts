import { QueryClient } from "@tanstack/react-query";
import { expect, it } from "vitest";
import { putKnown } from "./known";

const KEY = ["frames", "a"];

/** A question under way, and how to have it answered. */
function asked(client: QueryClient) {
  let answer: (told: string) => void = () => undefined;
  const told = new Promise<string>((resolve) => (answer = resolve));
  const done = client.fetchQuery({ queryKey: KEY, queryFn: () => told }).catch(() => "not taken");
  return { answer, done };
}

it("an answer of before the change does not take the place of what the change said", async () => {
  const client = new QueryClient();
  client.setQueryData(KEY, "1 taken");
  const late = asked(client);
  await putKnown(client, KEY, "2 taken");
  late.answer("1 taken");
  await late.done;
  expect(client.getQueryData(KEY)).toBe("2 taken");
});

it("nor where nothing was known before", async () => {
  const client = new QueryClient();
  const late = asked(client);
  await putKnown<string>(client, KEY, (last) => last ?? "2 taken");
  late.answer("1 taken");
  await late.done;
  expect(client.getQueryData(KEY)).toBe("2 taken");
});

it("what is asked after the change is taken", async () => {
  const client = new QueryClient();
  await putKnown(client, KEY, "2 taken");
  const next = asked(client);
  next.answer("3 taken");
  await next.done;
  expect(client.getQueryData(KEY)).toBe("3 taken");
});
