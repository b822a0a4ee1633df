import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { clearStash, readStash, writeStash } from "./stash";

const body = { name: "kept" };
let store: Map<string, string>;

beforeEach(() => {
  store = new Map();
  vi.stubGlobal("localStorage", {
    getItem: (key: string) => store.get(key) ?? null,
    setItem: (key: string, value: string) => void store.set(key, value),
    removeItem: (key: string) => void store.delete(key),
  });
});
afterEach(() => vi.unstubAllGlobals());

it("a draft comes back as it was, for its own shot only", () => {
  writeStash("a", { base_revision: 7, body });
  expect(readStash("a", body)).toEqual({ base_revision: 7, body });
  expect(readStash("b", body)).toBeNull();
});

it("what an older program did not write yet is taken from the document as it is kept", () => {
  const whole = { name: "kept", stack: { settle_s: 2, overlap: 0.5 }, points: [1, 2], back: null };
  store.set(
    "just-plane.unsaved.a",
    JSON.stringify({
      base_revision: 7,
      body: { name: "mine", stack: { settle_s: 3 }, points: [], back: { x: 1 } },
    }),
  );
  expect(readStash("a", whole)?.body).toEqual({
    name: "mine",
    stack: { settle_s: 3, overlap: 0.5 },
    points: [],
    back: { x: 1 },
  });
});

it("a draft that was saved is forgotten", () => {
  writeStash("a", { base_revision: 7, body });
  clearStash("a");
  expect(readStash("a", body)).toBeNull();
});

it.each(["{", "null", "[]", '{"base_revision": "7"}', '{"base_revision": 7}'])(
  "spoilt text %s is no draft",
  (text) => {
    store.set("just-plane.unsaved.a", text);
    expect(readStash("a", body)).toBeNull();
  },
);

it("a browser that keeps nothing is no reason to fail", () => {
  vi.stubGlobal("localStorage", {
    setItem: () => {
      throw new DOMException("full", "QuotaExceededError");
    },
  });
  expect(() => writeStash("a", { base_revision: 7, body })).not.toThrow();
});
