import type { Gear } from "../api/types";
import { Check } from "../controls/Check";
import { QuantityField } from "../controls/QuantityField";
import { Segments } from "../controls/Segments";
import { TextBox } from "../controls/TextBox";
import { Fields, Wide } from "../controls/panel";
import { CropModes } from "./CropModes";
import { FIELDS, pointerOf, type GearField } from "./fields";

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
      {FIELDS[gear.kind].map((field) => (
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
  const value = valueAt(gear, field.at);
  const set = (next: unknown) => onChange(withValue(gear, field.at, next));
  if (field.type === "yes") {
    return (
      <Wide>
        <Check label={field.label} value={value === true} onChange={set} />
      </Wide>
    );
  }
  if (field.type === "choice") {
    return (
      <Wide>
        <Segments
          label={field.label}
          value={typeof value === "string" ? value : (field.options[0]?.id ?? "")}
          options={field.options}
          onChange={set}
        />
      </Wide>
    );
  }
  return (
    <QuantityField
      label={field.label}
      kind={field.kind}
      value={typeof value === "number" ? value : null}
      step={field.step}
      onChange={set}
      {...(field.unknown === undefined ? {} : { onEmpty: () => set(null), emptyHint: field.unknown })}
      hint={field.hint}
      problem={problemAt(pointerOf(field))}
    />
  );
}

/** The value at a path of a piece; the form's table and the contract's models name the same members. */
export function valueAt(gear: object, path: readonly string[]): unknown {
  return path.reduce<unknown>(
    (value, part) =>
      typeof value === "object" && value !== null ? (value as Record<string, unknown>)[part] : undefined,
    gear,
  );
}

/** The piece with another value at a path. */
export function withValue<G extends object>(gear: G, path: readonly string[], value: unknown): G {
  const [first, ...rest] = path;
  if (first === undefined) return gear;
  const inner = (gear as Record<string, unknown>)[first];
  return { ...gear, [first]: rest.length ? withValue(inner as object, rest, value) : value };
}
