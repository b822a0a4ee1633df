import { expect, it } from "vitest";
import type { Kit } from "../../api/types";
import { rigWords } from "./rigWords";

const kit = {
  pieces: [
    { gear: { kind: "lens", kit_id: "l", name: "35 mm" } },
    { gear: { kind: "body", kit_id: "b", name: "a body" } },
    { gear: { kind: "tube", kit_id: "t", name: "" } },
  ],
} as unknown as Kit;

it("a rig is told from the body outward, with what is turned round", () => {
  expect(rigWords(["~l", "t", "b"], kit)).toBe("a body · tube without a name · 35 mm turned round");
});

it("a piece that has left the kit is said to have", () => {
  expect(rigWords(["gone", "b"], kit)).toBe("a body · a piece no longer in the kit");
});
