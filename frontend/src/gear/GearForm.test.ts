import { expect, it } from "vitest";
import { FIELDS, pointerOf } from "./fields";
import { valueAt, withValue } from "./GearForm";
import { KINDS } from "./words";

it("a value is read and put at its path, and nothing else changes", () => {
  const zoom = {
    kind: "zoom",
    short: { focal_length_mm: 24, barrel_mm: 100 },
    long: { focal_length_mm: 70 },
  };
  const changed = withValue(zoom, ["short", "focal_length_mm"], 28);
  expect(valueAt(changed, ["short", "focal_length_mm"])).toBe(28);
  expect(changed).toEqual({ ...zoom, short: { focal_length_mm: 28, barrel_mm: 100 } });
  expect(zoom.short.focal_length_mm).toBe(24);
  expect(valueAt(zoom, ["long", "barrel_mm"])).toBeUndefined();
});

it.each(KINDS.map((each) => each.kind))("every field of a %s has a place of its own", (kind) => {
  const pointers = FIELDS[kind].map(pointerOf);
  expect(new Set(pointers).size).toBe(pointers.length);
  expect(pointers.length).toBeGreaterThan(0);
});
