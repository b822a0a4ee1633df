import { expect, it } from "vitest";
import type { Kit } from "../../api/types";
import { copyOf, newShot } from "./newShot";

const kit = (...names: [kind: string, name: string][]) =>
  ({ pieces: names.map(([kind, name]) => ({ gear: { kind, name } })) }) as unknown as Kit;
const shelf = kit(["tube", "a tube"], ["body", "shelf body"], ["lens", "shelf lens"]);

it("a new shot takes body and lens from the kit where there are some", () => {
  const shot = newShot(kit(["lens", "own lens"]), shelf, "Shot 3");
  expect(shot.name).toBe("Shot 3");
  expect(shot.body.name).toBe("shelf body");
  expect(shot.rig.map((placed) => placed.gear.name)).toEqual(["own lens"]);
});

it("nothing to start with is said", () => {
  expect(() => newShot(kit(), kit(["body", "b"]), "x")).toThrow(/no body or no lens/);
});

it("a copy says that it is one, however long the name, and decides anew", () => {
  const shot = { ...newShot(kit(), shelf, "x".repeat(120)), chosen_way: "rail", pinned: ["rail"] } as never;
  const copy = copyOf(shot);
  expect(copy.name).toHaveLength(120);
  expect(copy.name.endsWith(" copy")).toBe(true);
  expect([copy.chosen_way, copy.pinned]).toEqual([null, []]);
});

it("the rig of the shot worked on last is carried over, and nothing else of it", () => {
  const last = {
    ...newShot(kit(["lens", "last lens"]), shelf, "Last"),
    notes: "secret",
    camera_on_its_side: true,
  };
  const shot = newShot(kit(["lens", "own lens"]), shelf, "Next", last as never);
  expect(shot.rig.map((placed) => placed.gear.name)).toEqual(["last lens"]);
  expect(shot.camera_on_its_side).toBe(true);
  expect([shot.name, shot.notes]).toEqual(["Next", undefined]);
});
