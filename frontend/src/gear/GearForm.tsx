import { gearField, within } from "../api/fields";
import { valueAt, withValueAt } from "../api/pointer";
import type { Gear } from "../api/types";
import type { Kind } from "../units/parse";
import { Check } from "../controls/Check";
import { QuantityField } from "../controls/QuantityField";
import { Segments } from "../controls/Segments";
import { TextBox } from "../controls/TextBox";
import { Fields, Wide } from "../controls/panel";
import { CropModes } from "./CropModes";
import { fieldsOf, pointerOf, type GearField } from "./fields";

interface GearFormProps<G extends Gear> {
  gear: G;
  onChange: (gear: G) => void;
  /** The sentence to show at a pointer below the piece, such as `/focal_length_mm`. */
  problemAt: (pointer: string) => string | undefined;
}

/** The few numbers of a piece of gear, whatever it is. */
export function GearForm<G extends Gear>({ gear, onChange, problemAt }: GearFormProps<G>) {
  return (
    <Fields>
      <Wide>
        <TextBox
          label="Name"
          value={gear.name}
          maxLength={120}
          onChange={(name) => onChange({ ...gear, name })}
          problem={problemAt("/name")}
        />
      </Wide>
      {fieldsOf(gear.kind).map((field) => (
        <OneField
          key={pointerOf(field)}
          field={field}
          gear={gear}
          onChange={onChange}
          problemAt={problemAt}
        />
      ))}
      {gear.kind === "body" ? (
        <Wide>
          <CropModes modes={gear.crop_modes} onChange={(crop_modes) => onChange({ ...gear, crop_modes })} />
        </Wide>
      ) : null}
    </Fields>
  );
}

function OneField<G extends Gear>({
  field,
  gear,
  onChange,
  problemAt,
}: GearFormProps<G> & { field: GearField }) {
  const facts = gearField(gear.kind, field.at);
  const pointer = pointerOf(field);
  const value = valueAt(gear, pointer);
  const set = (next: unknown) => onChange(withValueAt(gear, pointer, next));
  if (field.type === "yes") {
    return (
      <Wide>
        <Check label={facts.title} value={value === true} onChange={set} />
      </Wide>
    );
  }
  if (field.type === "choice") {
    return (
      <Wide>
        <Segments
          label={facts.title}
          value={typeof value === "string" ? value : (field.options[0]?.id ?? "")}
          options={field.options}
          onChange={set}
        />
      </Wide>
    );
  }
  return (
    <QuantityField
      label={field.label ?? facts.title}
      kind={facts.kind as Kind}
      value={typeof value === "number" ? value : null}
      step={within(facts, field.step)}
      onChange={set}
      {...(facts.empty ? { onEmpty: () => set(null) } : {})}
      {...(field.unknown === undefined ? {} : { emptyHint: field.unknown })}
      hint={field.hint}
      problem={problemAt(pointer)}
    />
  );
}
