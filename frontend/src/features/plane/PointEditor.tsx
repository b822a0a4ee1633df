import { useState } from "react";
import { TextField } from "react-aria-components";
import styled from "styled-components";
import type { Point } from "../../api/types";
import { Button } from "../../controls/Button";
import { AMONG_FIELDS, FieldHint, FieldInput, FieldLabel, FieldTrouble } from "../../controls/field";
import { QuantityField } from "../../controls/QuantityField";
import { Segments } from "../../controls/Segments";
import { by } from "../../controls/steps";
import { TextBox } from "../../controls/TextBox";
import { Fields, Wide } from "../../controls/panel";
import { FlatPart } from "./FlatPart";
import { useBench } from "../../shot/ShotContext";
import {
  parseReadings,
  planeOf,
  readBy,
  withPlane,
  withPoint,
  withPointFirst,
  type Depth,
} from "../../shot/moves";

const Box = styled.div`
  padding: 8px 8px 12px 11px;
  background: ${({ theme }) => theme.raised};
`;

const WANTED = [
  { id: "sharp", label: "must be sharp" },
  { id: "soft", label: "should stay soft" },
] as const;

const READ_BY = [
  { id: "rail", label: "rail" },
  { id: "tape", label: "tape" },
  { id: "angle", label: "angle" },
] as const;

const stepped = by(0.01, 0.1, 0);
const PLACE: typeof stepped = (...asked) => Math.min(stepped(...asked), 1);

/** One point: its name, what is wanted of it, and how its depth is known. */
export function PointEditor({ point, index }: { point: Point; index: number }) {
  const { edit, problemAt, cautionAt, selectPoint } = useBench();
  const field = `/plane/points/${index}`;
  const set = (change: (point: Point) => Point) => edit((draft) => withPoint(draft, point.id, change));
  const setDepth = (change: Partial<Depth>) =>
    set((each) => ({ ...each, depth: { ...each.depth, ...change } as Depth }));
  const remove = () => {
    edit((draft) =>
      withPlane(draft, { points: planeOf(draft).points.filter((each) => each.id !== point.id) }),
    );
    selectPoint(null);
  };
  return (
    <Box>
      <Fields style={{ marginBottom: 8 }}>
        <Wide>
          <TextBox
            label="Name"
            value={point.name}
            maxLength={60}
            onChange={(name) => set((each) => ({ ...each, name }))}
          />
        </Wide>
        <Wide>
          <Segments
            label="It"
            value={point.wanted}
            options={WANTED}
            onChange={(wanted) => set((each) => ({ ...each, wanted }))}
          />
        </Wide>
        <Wide>
          <Segments
            label="Depth by"
            value={point.depth.by}
            options={READ_BY}
            onChange={(way) => set((each) => readBy(each, way))}
          />
        </Wide>
        {point.depth.by === "angle" ? (
          <FlatPart depth={point.depth} field={field} setDepth={setDepth} />
        ) : null}
        <QuantityField
          label="From left"
          kind="percent"
          value={point.from_left}
          step={PLACE}
          onChange={(from_left) => set((each) => ({ ...each, from_left }))}
          problem={problemAt(`${field}/from_left`)}
        />
        <QuantityField
          label="From top"
          kind="percent"
          value={point.from_top}
          step={PLACE}
          onChange={(from_top) => set((each) => ({ ...each, from_top }))}
          problem={problemAt(`${field}/from_top`)}
          hint="or drag it"
        />
        <Wide>
          <Readings
            label={
              point.depth.by === "tape"
                ? "Sensor mark to it, mm"
                : point.depth.by === "angle"
                  ? "Rail mark at its middle, mm"
                  : "Rail mark where it is sharp, mm"
            }
            value={point.depth.readings_mm}
            onChange={(readings_mm) => setDepth({ readings_mm })}
            problem={problemAt(`${field}/depth/readings_mm`)}
            hint={cautionAt(`${field}/depth/readings_mm`) ?? cautionAt(field)}
          />
        </Wide>
      </Fields>
      {index > 0 ? (
        <Button data-weight="quiet" onPress={() => edit((draft) => withPointFirst(draft, point.id))}>
          It matters most: put it first
        </Button>
      ) : null}
      <Button data-weight="quiet" onPress={remove}>
        Remove this point
      </Button>
    </Box>
  );
}

interface ReadingsProps {
  label: string;
  value: number[];
  onChange: (readings: number[]) => void;
  problem: string | undefined;
  hint: string | undefined;
}

/** One or more readings, typed one after another; more than one tell how sure they are. */
function Readings({ label, value, onChange, problem, hint }: ReadingsProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const take = () => {
    if (typed === null) return;
    const parsed = parseReadings(typed);
    if ("problem" in parsed) {
      setRefused(parsed.problem);
      return;
    }
    setTyped(null);
    setRefused(null);
    if (parsed.readings.join() !== value.join()) onChange(parsed.readings);
  };
  const trouble = refused ?? problem;
  return (
    <TextField
      {...AMONG_FIELDS}
      value={typed ?? value.join("  ")}
      onChange={(text) => {
        setTyped(text);
        setRefused(null);
      }}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === "Enter") take();
      }}
      isInvalid={Boolean(trouble)}
      validationBehavior="aria"
    >
      <FieldLabel>{label}</FieldLabel>
      <FieldInput placeholder="not read yet" autoComplete="off" inputMode="text" />
      {trouble ? <FieldTrouble>{trouble}</FieldTrouble> : null}
      <FieldHint slot="description">
        {trouble ? "" : (hint ?? "Read it twice or more, and the answer says how sure it is.")}
      </FieldHint>
    </TextField>
  );
}
