import { describe, expect, it } from "vitest";
import { changedField, NOTHING_YET, noted, PAUSE_MS, same, sent } from "./meaning";

describe("changes that mean one thing", () => {
  it("a field changed again within the pause goes on with its last change", () => {
    let meaning = sent(noted(NOTHING_YET, "/a", 0));
    meaning = noted(meaning, "/a", PAUSE_MS - 1);
    expect(meaning.pending?.continues).toBe(true);
  });

  it("after the pause, or at another field, it begins anew", () => {
    const once = sent(noted(NOTHING_YET, "/a", 0));
    expect(noted(once, "/a", PAUSE_MS).pending?.continues).toBe(false);
    expect(noted(once, "/b", 1).pending?.continues).toBe(false);
  });

  it("the first change goes on with nothing, and what changed in several places neither", () => {
    expect(noted(NOTHING_YET, "/a", 0).pending?.continues).toBe(false);
    const several = sent(noted(NOTHING_YET, null, 0));
    expect(noted(several, null, 1).pending?.continues).toBe(false);
  });

  it("two fields changed before they could be sent are a step of their own", () => {
    let meaning = sent(noted(NOTHING_YET, "/a", 0));
    meaning = noted(noted(meaning, "/a", 1), "/b", 2);
    expect(meaning.pending).toEqual({ field: null, at: 2, continues: false });
    expect(noted(sent(meaning), "/b", 3).pending?.continues).toBe(false);
  });
});

describe("where documents differ", () => {
  it.each([
    [{ a: 1, b: { c: 2 } }, { a: 1, b: { c: 3 } }, "/b/c"],
    [{ a: [1, 2] }, { a: [1, 3] }, "/a/1"],
    [{ a: 1 }, { a: 2, b: 1 }, null],
    [{ a: 1 }, { a: 1 }, null],
    [{ a: [1] }, { a: { 0: 1 } }, "/a"],
    [{ a: null }, { a: 1 }, "/a"],
    [{ a: [{ x: 1, y: 2, n: "b" }] }, { a: [{ x: 2, y: 3, n: "b" }] }, "/a/0"],
    [{ a: [{ x: 1, n: "b" }] }, { a: [{ x: 2, n: "c" }] }, null],
    [{ a: [{ x: 1 }, { x: 1 }] }, { a: [{ x: 2 }, { x: 2 }] }, null],
    [{ a: [1, 1] }, { a: [2, 2] }, null],
    [{ a: [{ x: 1, d: { marks: [3, 4] } }] }, { a: [{ x: 1, d: { marks: [4, 5] } }] }, "/a/0"],
    [{ a: [{ x: 1, d: { marks: [3, 4] } }] }, { a: [{ x: 1, d: { marks: [3, 5] } }] }, "/a/0/d/marks/1"],
    [{ a: [{ x: 1, d: { marks: [3, 4] } }] }, { a: [{ x: 1, d: { marks: [5] } }] }, null],
    [{ a: [{ x: 1, d: { by: "rail", mm: 4 } }] }, { a: [{ x: 2, d: { by: "rail", mm: 5 } }] }, "/a/0"],
    [{ a: [{ x: 1, d: { by: "rail", mm: 4 } }] }, { a: [{ x: 2, d: { by: "tape", mm: 4 } }] }, null],
  ])("%j and %j: %s", (before, after, field) => {
    expect(changedField(before, after)).toBe(field);
  });

  it("the order of members does not matter, that of lists does", () => {
    expect(same({ a: 1, b: [1, 2] }, { b: [1, 2], a: 1 })).toBe(true);
    expect(same({ b: [1, 2] }, { b: [2, 1] })).toBe(false);
    expect(same({ a: undefined }, {})).toBe(false);
  });
});
