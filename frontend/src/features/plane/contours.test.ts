import { expect, it } from "vitest";
import type { BlurMap } from "../../api/types";
import { mapOf } from "./contours";

it("every way has its own map or none", () => {
  const maps = [{ way: "one" }, { way: "tilt" }, { way: "tilt_best" }] as BlurMap[];
  expect(mapOf(maps, "one")?.way).toBe("one");
  expect(mapOf(maps, "tilt_rail")?.way).toBe("tilt");
  expect(mapOf(maps, "tilt_best")?.way).toBe("tilt_best");
  expect(mapOf(maps, null)?.way).toBe("tilt");
  expect(mapOf(maps, "rail")).toBeUndefined();
});
