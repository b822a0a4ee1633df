import { describe, expect, it } from "vitest";
import { valueAt, withValueAt } from "./pointer";

const shot = { stack: { settle_s: 2, overlap: 0.5 }, light: { iso: 100 }, rig: [{ a: 1 }, { a: 2 }] };

describe("a place in a document", () => {
  it.each([
    ["/stack/settle_s", 2],
    ["/rig/1/a", 2],
    ["/nowhere/at/all", undefined],
    ["", shot],
  ])("%s", (pointer, value) => expect(valueAt(shot, pointer)).toEqual(value));

  it("is changed, and nothing beside it", () => {
    const next = withValueAt(shot, "/stack/settle_s", 3);
    expect(next.stack).toEqual({ settle_s: 3, overlap: 0.5 });
    expect(next.light).toBe(shot.light);
    expect(shot.stack.settle_s).toBe(2);
  });

  it("is changed in a list, which stays a list", () => {
    const next = withValueAt(shot, "/rig/0/a", 9);
    expect(next.rig).toEqual([{ a: 9 }, { a: 2 }]);
    expect(next.rig[1]).toBe(shot.rig[1]);
  });

  it("is made where there was none", () => {
    expect(withValueAt({ back: null }, "/back/tilt_deg", 4)).toEqual({ back: { tilt_deg: 4 } });
  });
});
