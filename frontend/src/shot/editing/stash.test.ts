import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { clearStash, dropLeft, leftBehind, writeStash } from "./stash";

const body = { name: "kept" };
let store: Map<string, string>;
let open: string[];

function fake(): Partial<Storage> {
  return {
    getItem: (key: string) => store.get(key) ?? null,
    setItem: (key: string, value: string) => void store.set(key, value),
    removeItem: (key: string) => void store.delete(key),
    key: (index: number) => [...store.keys()][index] ?? null,
    get length() {
      return store.size;
    },
  };
}

beforeEach(() => {
  store = new Map();
  open = [];
  vi.stubGlobal("localStorage", fake());
  vi.stubGlobal("navigator", {
    locks: {
      request: () => new Promise(() => undefined),
      query: () => Promise.resolve({ held: open.map((name) => ({ name: `just-plane.window.${name}` })) }),
    },
  });
});
afterEach(() => vi.unstubAllGlobals());

const put = (key: string, at: string, name = "mine") =>
  store.set(`just-plane.unsaved.${key}`, JSON.stringify({ base_revision: 7, body: { name }, at }));

it("what a closed window left behind is found, for its own document only, the newest first", async () => {
  put("a.one", "2026-01-01T10:00:00Z", "older");
  put("a.two", "2026-01-01T11:00:00Z", "newer");
  put("ab.three", "2026-01-01T12:00:00Z", "another document's");
  expect((await leftBehind("a", body)).map((left) => left.body.name)).toEqual(["newer", "older"]);
});

it("a draft of a window that is still open is left alone", async () => {
  put("a.one", "2026-01-01T10:00:00Z");
  open = ["one"];
  expect(await leftBehind("a", body)).toEqual([]);
});

it("its own draft is cleared by the window that wrote it, and no other", async () => {
  put("a.one", "2026-01-01T10:00:00Z");
  writeStash("a", { base_revision: 9, body });
  expect(store.size).toBe(2);
  clearStash("a");
  expect([...store.keys()]).toEqual(["just-plane.unsaved.a.one"]);
  dropLeft("just-plane.unsaved.a.one");
  expect(store.size).toBe(0);
});

it("its own draft is not offered to itself", async () => {
  writeStash("a", { base_revision: 9, body });
  expect(await leftBehind("a", body)).toEqual([]);
});

it("what an older program wrote is found too, and what it did not write yet is taken from the document", async () => {
  const whole = { name: "kept", stack: { settle_s: 2, overlap: 0.5 }, points: [1, 2], back: null };
  store.set(
    "just-plane.unsaved.a",
    JSON.stringify({
      base_revision: 7,
      body: { name: "mine", stack: { settle_s: 3 }, points: [], back: { x: 1 } },
    }),
  );
  expect((await leftBehind("a", whole))[0]?.body).toEqual({
    name: "mine",
    stack: { settle_s: 3, overlap: 0.5 },
    points: [],
    back: { x: 1 },
  });
});

it.each(["", "no JSON", "{}", '{"base_revision": "seven", "body": {}}', '{"base_revision": 7}'])(
  "what is no draft is passed over: %j",
  async (text) => {
    store.set("just-plane.unsaved.a.one", text);
    expect(await leftBehind("a", body)).toEqual([]);
  },
);

it("without locks a draft is left behind when it has been quiet for a while", async () => {
  vi.stubGlobal("navigator", {});
  put("a.fresh", new Date().toISOString());
  put("a.old", new Date(Date.now() - 60_000).toISOString(), "old");
  expect((await leftBehind("a", body)).map((left) => left.body.name)).toEqual(["old"]);
});

it("a store that is full or forbidden stops nothing", async () => {
  const refuse = () => {
    throw new Error("refused");
  };
  vi.stubGlobal("localStorage", {
    getItem: refuse,
    setItem: refuse,
    removeItem: refuse,
    key: refuse,
    length: 1,
  });
  expect(() => writeStash("a", { base_revision: 1, body })).not.toThrow();
  expect(() => clearStash("a")).not.toThrow();
  expect(await leftBehind("a", body)).toEqual([]);
});
