import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { ViewAsked } from "../../api/types";
import { puller } from "./pull";

const asked = (focus: number) => ({ setting: { focus } }) as unknown as ViewAsked;
const focusOf = (body: unknown) => (JSON.parse(String(body)) as ViewAsked).setting.focus;

let answers: (() => void)[] = [];
let sent: number[] = [];

beforeEach(() => {
  answers = [];
  sent = [];
  vi.stubGlobal("URL", { createObjectURL: () => `blob:${sent.length}`, revokeObjectURL: () => undefined });
  vi.stubGlobal("fetch", (_: string, init: RequestInit) => {
    sent.push(focusOf(init.body));
    return new Promise((resolve) => {
      answers.push(() => resolve({ ok: true, blob: () => Promise.resolve(new Blob()) }));
    });
  });
});
afterEach(() => vi.unstubAllGlobals());

const settle = async () => {
  for (let turn = 0; turn < 6; turn += 1) await Promise.resolve();
};

it("has one request under way, and of those that wait the newest alone", async () => {
  const shown: number[] = [];
  const pull = puller(({ asked: of }) => shown.push(of.setting.focus), vi.fn());
  [1, 2, 3, 4].forEach((focus) => pull.ask(asked(focus)));
  expect(sent).toEqual([1]);
  answers[0]?.();
  await settle();
  expect(sent).toEqual([1, 4]);
  answers[1]?.();
  await settle();
  expect(shown).toEqual([1, 4]);
  expect(pull.isBusy()).toBe(false);
});

it("says when a picture does not come, and goes on", async () => {
  const lost = vi.fn();
  const shown = vi.fn();
  vi.stubGlobal("fetch", () => Promise.reject(new Error("gone")));
  const pull = puller(shown, lost);
  pull.ask(asked(1));
  await settle();
  expect(lost).toHaveBeenCalledTimes(1);
  expect(pull.isBusy()).toBe(false);
});

it("lets a picture go when the second after it has come, and the last ones a while after the end", async () => {
  vi.useFakeTimers();
  const gone: string[] = [];
  let made = 0;
  vi.stubGlobal("URL", {
    createObjectURL: () => `blob:${++made}`,
    revokeObjectURL: (src: string) => gone.push(src),
  });
  const pull = puller(vi.fn(), vi.fn());
  for (const focus of [1, 2, 3]) {
    pull.ask(asked(focus));
    answers[focus - 1]?.();
    await settle();
  }
  expect(gone).toEqual(["blob:1"]);
  pull.ask(asked(4));
  pull.end();
  answers[3]?.();
  await settle();
  expect([made, gone]).toEqual([3, ["blob:1"]]);
  vi.runAllTimers();
  vi.useRealTimers();
  expect(gone).toEqual(["blob:1", "blob:2", "blob:3"]);
});

it("shows nothing once it is over", async () => {
  const shown = vi.fn();
  const pull = puller(shown, vi.fn());
  pull.ask(asked(1));
  pull.end();
  answers[0]?.();
  await settle();
  expect(shown).not.toHaveBeenCalled();
});
