import { useState } from "react";
import {
  Disclosure,
  DisclosurePanel,
  Heading as AriaHeading,
  Button as AriaButton,
} from "react-aria-components";
import styled from "styled-components";
import type { Shot } from "../../api/types";
import { usePreferences } from "../../app/preferences";
import { Button } from "../../controls/Button";
import { Pick } from "../../controls/Pick";
import { QuantityField } from "../../controls/QuantityField";
import { Segments } from "../../controls/Segments";
import { by, byShare } from "../../controls/steps";
import { length, size, times } from "../../units/format";
import { AnswerBox, Facts, Fields, Heading, Lead, Wide } from "../bench/panel";
import { useBench } from "../bench/ShotContext";
import { BodyNumbers, LensNumbers } from "./GearNumbers";
import { useShelf } from "./useShelf";

const Tubes = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  button {
    padding: 0 10px;
  }
`;

const Fold = styled(Disclosure)`
  border-top: 1px solid ${({ theme }) => theme.line};
  & h2 button {
    width: 100%;
    min-height: 40px;
    text-align: left;
    border: 0;
    padding: 0;
    background: none;
    font-weight: 600;
    font-size: 13px;
    cursor: pointer;
  }
`;

/** Station 2: the frame wanted, and the gear that gives it. */
export function ReachPanel() {
  const { shot, plan, edit, problemAt, cautionAt } = useBench();
  const { units } = usePreferences();
  const shelf = useShelf().data;
  const [folded, setFolded] = useState<Record<string, boolean>>({});
  const reach = plan?.reach;
  const framing = shot.framing;
  const tubes = shot.tubes_mm ?? [];
  const setFraming = (value: Shot["framing"]) => edit((draft) => ({ ...draft, framing: value }));
  const setTubes = (tubes_mm: number[]) => edit((draft) => ({ ...draft, tubes_mm }));
  const trouble = problemAt("/framing") ?? problemAt("/tubes_mm") ?? problemAt("/lens");
  return (
    <>
      <Heading>How close, with what?</Heading>
      <Lead>The frame you want, and the gear in front of the sensor.</Lead>
      <Fields>
        <Wide>
          <Segments
            label="Frame by"
            value={framing.by}
            options={[
              { id: "frame_width", label: "its width" },
              { id: "magnification", label: "size on the sensor" },
            ]}
            onChange={(kind) =>
              setFraming(
                kind === "magnification"
                  ? { by: "magnification", magnification: round(reach?.magnification ?? 0.5) }
                  : { by: "frame_width", frame_width_mm: round(reach?.frame_width_mm ?? 72) },
              )
            }
          />
        </Wide>
        <Wide>
          {framing.by === "frame_width" ? (
            <QuantityField
              label="Frame width"
              kind="length"
              value={framing.frame_width_mm}
              step={byShare}
              onChange={(frame_width_mm) => setFraming({ by: "frame_width", frame_width_mm })}
              problem={problemAt("/framing")}
              hint={cautionAt("/framing")}
            />
          ) : (
            <QuantityField
              label="Magnification"
              kind="ratio"
              value={framing.magnification}
              step={byShare}
              onChange={(magnification) => setFraming({ by: "magnification", magnification })}
              problem={problemAt("/framing")}
              hint={cautionAt("/framing")}
            />
          )}
        </Wide>
        {reach ? (
          <Wide>
            <AnswerBox {...(trouble ? { "data-trouble": "" } : {})}>
              <strong>
                {times(reach.magnification)}, {length(Math.max(reach.nearest_point_mm, 0), units)} to work in
              </strong>
              Frame {size(reach.frame_width_mm, reach.frame_height_mm, units)}. This rig gives{" "}
              {reach.smallest_magnification === 0 ? "infinity" : times(reach.smallest_magnification)} to{" "}
              {times(reach.largest_magnification)}
              {reach.farthest_focus_mm === null
                ? "."
                : `, and focuses no farther than ${length(reach.farthest_focus_mm, units)} from the sensor.`}
            </AnswerBox>
          </Wide>
        ) : null}
        <Wide>
          <Pick
            label="Body"
            value={shelf?.bodies.find((body) => body.name === shot.body.name)?.name ?? null}
            placeholder={shot.body.name || "own numbers"}
            options={(shelf?.bodies ?? []).map((body) => ({ id: body.name ?? "", label: body.name ?? "" }))}
            onChange={(name) => {
              const body = shelf?.bodies.find((each) => each.name === name);
              if (body) edit((draft) => ({ ...draft, body }));
            }}
          />
        </Wide>
        <Wide>
          <Pick
            label="Lens"
            value={shelf?.lenses.find((lens) => lens.name === shot.lens.name)?.name ?? null}
            placeholder={shot.lens.name || "own numbers"}
            options={(shelf?.lenses ?? []).map((lens) => ({ id: lens.name ?? "", label: lens.name ?? "" }))}
            onChange={(name) => {
              const lens = shelf?.lenses.find((each) => each.name === name);
              if (lens) edit((draft) => ({ ...draft, lens }));
            }}
          />
        </Wide>
        <Wide>
          <Pick
            label="Add a tube"
            value={null}
            placeholder={tubes.length ? "one more" : "no tube yet"}
            options={(shelf?.tubes_mm ?? []).map((each) => ({
              id: String(each),
              label: length(each, units),
            }))}
            onChange={(id) => setTubes([...tubes, Number(id)])}
          />
        </Wide>
        {tubes.map((tube, index) => (
          <QuantityField
            key={index}
            label={`Tube ${index + 1}`}
            kind="length"
            value={tube}
            step={by(1, 5, 1)}
            onChange={(value) => setTubes(tubes.map((each, at) => (at === index ? value : each)))}
            problem={problemAt(`/tubes_mm/${index}`) ?? (index === 0 ? problemAt("/tubes_mm") : undefined)}
            hint={index === 0 ? cautionAt("/tubes_mm") : undefined}
          />
        ))}
        {tubes.length ? (
          <Wide>
            <Tubes>
              {tubes.map((tube, index) => (
                <Button key={index} onPress={() => setTubes(tubes.filter((_, at) => at !== index))}>
                  Take out {length(tube, units)}
                </Button>
              ))}
            </Tubes>
          </Wide>
        ) : null}
      </Fields>
      {reach ? (
        <>
          <Facts>
            <dt>focus ring gives</dt>
            <dd>{times(reach.own_magnification)}</dd>
            {tubes.length ? (
              <>
                <dt>tubes give</dt>
                <dd>{times(reach.tube_magnification)}</dd>
              </>
            ) : null}
            <dt>focal length here</dt>
            <dd>{length(reach.focal_length_now_mm, units)}</dd>
            <dt>subject to sensor mark</dt>
            <dd>{length(reach.subject_to_sensor_mm, units, 4)}</dd>
          </Facts>
        </>
      ) : null}
      {(["body", "lens"] as const).map((part) => (
        <Fold
          key={part}
          isExpanded={folded[part] ?? Boolean(problemAt(`/${part}`))}
          onExpandedChange={(open) => setFolded((last) => ({ ...last, [part]: open }))}
        >
          <AriaHeading level={2}>
            <AriaButton slot="trigger">
              {part === "body" ? "Numbers of the body" : "Numbers of the lens"} …
            </AriaButton>
          </AriaHeading>
          <DisclosurePanel>{part === "body" ? <BodyNumbers /> : <LensNumbers />}</DisclosurePanel>
        </Fold>
      ))}
      <Lead>A kit of your own, close-up lenses, converters and reversed lenses are not there yet.</Lead>
    </>
  );
}

function round(value: number): number {
  return Number(value.toPrecision(4));
}
