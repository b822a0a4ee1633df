import { expect, it } from "vitest";
import type { Shelf } from "../../api/types";
import { newShot } from "./newShot";

const shelf = {
  bodies: [{ name: "first body", sensor_width_mm: 36, sensor_height_mm: 24 }],
  lenses: [{ name: "first lens", focal_length_mm: 100 }],
  tubes_mm: [12],
} as unknown as Shelf;

it("starts from the first things on the shelf, with nothing decided", () => {
  const shot = newShot(shelf, "Shot 1");
  expect(shot.body.name).toBe("first body");
  expect(shot.lens.name).toBe("first lens");
  expect(shot.chosen_way ?? null).toBeNull();
  expect(shot.format).toBe("just-plane/shot");
});

it("says so when the shelf is empty", () => {
  expect(() => newShot({ bodies: [], lenses: [], tubes_mm: [] }, "x")).toThrow(/shelf is empty/);
});
