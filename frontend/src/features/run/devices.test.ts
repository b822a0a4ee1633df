import { describe, expect, it } from "vitest";
import type { Run } from "../../api/types";
import { mainButton } from "./devices";

const run = (rail: "hand" | "simulated", camera: "hand" | "simulated", more: Partial<Run> = {}) =>
  ({
    state: "running",
    driven: rail !== "hand" || camera !== "hand",
    next_frame: 3,
    set_frame: null,
    devices: { rail, camera, faults: [], in_real_time: false, raw_too: false, seed: 1 },
    ...more,
  }) as unknown as Run;

describe("the large button", () => {
  it("counts a frame when all is done by hand", () => {
    expect(mainButton(run("hand", "hand")).act).toBe("taken");
  });

  it("stops devices that work by themselves", () => {
    expect(mainButton(run("simulated", "simulated")).act).toBe("pause");
  });

  it("releases when a hand has set the rail", () => {
    expect(mainButton(run("hand", "simulated")).act).toBe("set");
  });

  it("waits for the rail before it counts what a hand released", () => {
    expect(mainButton(run("simulated", "hand")).act).toBe("none");
    expect(mainButton(run("simulated", "hand", { set_frame: 3 })).act).toBe("taken");
  });

  it("starts the devices again after a pause or a restart of the server", () => {
    expect(mainButton(run("simulated", "simulated", { state: "paused" })).act).toBe("drive on");
    expect(mainButton(run("simulated", "simulated", { driven: false })).act).toBe("drive on");
    expect(mainButton(run("hand", "hand", { state: "paused" })).act).toBe("go on");
  });
});
