import { expect, it } from "vitest";
import { fieldsOf, pointerOf } from "./fields";
import { gearField } from "../api/fields";
import { KINDS } from "./words";

it.each(KINDS.map((each) => each.kind))("every field of a %s has a place of its own", (kind) => {
  const pointers = fieldsOf(kind).map(pointerOf);
  expect(new Set(pointers).size).toBe(pointers.length);
  expect(pointers.length).toBeGreaterThan(0);
});

it.each(KINDS.map((each) => each.kind))(
  "every field of a %s is one of the contract, typed as that says",
  (kind) => {
    for (const field of fieldsOf(kind)) {
      const facts = gearField(kind, field.at);
      expect(facts.kind === "yes").toBe(field.type === "yes");
      expect(facts.kind === "words").toBe(field.type === "choice");
      if (field.type === "choice") expect(field.options.map((each) => each.id)).toEqual(facts.options);
      if (field.type === "number" && field.unknown !== undefined) expect(facts.empty).toBe(true);
    }
  },
);
