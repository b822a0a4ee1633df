import { expect, it } from "vitest";
import type { Room } from "../../api/types";
import { roomView } from "./roomView";

const room = (change: Partial<Room> = {}): Room => ({
  free_mm: 190,
  shade_deg: 11,
  frame_width_mm: 72,
  front_mm: 200,
  front_width_mm: 80,
  seen_at_front_mm: 20,
  nearest_mm: 10,
  farthest_mm: -20,
  things: [],
  unplaced: [],
  ...change,
});

it("the camera stands at the left, its right hand below", () => {
  const view = roomView(room(), 900, 200);
  expect(view.x(200)).toBeLessThan(view.x(0));
  expect(view.y(30)).toBeGreaterThan(view.y(-30));
});

it("one scale holds both ways, and everything lies inside", () => {
  const light = {
    index: 0,
    kind: "light" as const,
    name: "lamp",
    one: [40, -420],
    other: [-40, -420],
    looks_deg: 11,
    in_the_way: false,
  };
  for (const things of [[], [light]]) {
    const told = room({ things });
    const view = roomView(told, 900, 240);
    expect(view.x(0) - view.x(100)).toBeCloseTo(view.y(100) - view.y(0));
    for (const [x, y] of [[-20, 36], [260, -40], ...things.flatMap((each) => [each.one, each.other])]) {
      expect(view.x(x as number)).toBeGreaterThanOrEqual(0);
      expect(view.x(x as number)).toBeLessThanOrEqual(900);
      expect(view.y(y as number)).toBeGreaterThanOrEqual(0);
      expect(view.y(y as number)).toBeLessThanOrEqual(240);
    }
  }
});
