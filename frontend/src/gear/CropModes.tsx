import styled from "styled-components";
import { gearField } from "../api/fields";
import type { Body } from "../api/types";
import { Button } from "../controls/Button";
import { QuantityField } from "../controls/QuantityField";
import { by } from "../controls/steps";
import { TextBox } from "../controls/TextBox";
import { Section } from "../controls/panel";

type Modes = NonNullable<Body["crop_modes"]>;

const Mode = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 10px;
  margin-bottom: 12px;
  & > :first-child {
    grid-column: 1 / -1;
  }
`;

const MOST_MODES = gearField("body", ["crop_modes"]).longest ?? Infinity;
const step = by(0.1, 1, 0.1);

/** Parts of the sensor that the body can use alone. */
export function CropModes({ modes, onChange }: { modes: Modes; onChange: (modes: Modes) => void }) {
  const set = (index: number, change: Partial<Modes[number]>) =>
    onChange(modes.map((mode, at) => (at === index ? { ...mode, ...change } : mode)));
  return (
    <>
      <Section>Crop modes</Section>
      {modes.map((mode, index) => (
        <Mode key={index}>
          <TextBox
            label="Crop mode"
            value={mode.name}
            maxLength={60}
            onChange={(name) => name && set(index, { name })}
          />
          <QuantityField
            label="Crop width"
            kind="length"
            value={mode.width_mm}
            step={step}
            onChange={(width_mm) => set(index, { width_mm })}
          />
          <QuantityField
            label="Crop height"
            kind="length"
            value={mode.height_mm}
            step={step}
            onChange={(height_mm) => set(index, { height_mm })}
          />
          <Button onPress={() => onChange(modes.filter((_, at) => at !== index))}>
            Take out {mode.name}
          </Button>
        </Mode>
      ))}
      <Button
        isDisabled={modes.length >= MOST_MODES}
        onPress={() =>
          onChange([...modes, { name: `crop ${modes.length + 1}`, width_mm: 24, height_mm: 16 }])
        }
      >
        Add a crop mode
      </Button>
    </>
  );
}
