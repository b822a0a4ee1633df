import styled from "styled-components";
import type { PlaneSection, Shot } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { Button } from "../../controls/Button";
import { QuantityField } from "../../controls/QuantityField";
import { Segments } from "../../controls/Segments";
import { by } from "../../controls/steps";
import { fixed, unbroken } from "../../units/format";
import { AnswerBox, Fields, Lead, Wide } from "../../controls/panel";
import { useBench } from "../../shot/ShotContext";
import { planeOf, withPlane } from "../../shot/moves";

type Back = NonNullable<NonNullable<Shot["plane"]>["read_back"]>;

const Row = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 118px;
  gap: 4px 10px;
  align-items: end;
  padding: 6px 0;
  border-top: 1px solid ${({ theme }) => theme.line};
  small {
    display: block;
    font-size: 12px;
    color: ${({ theme }) => theme.soft};
  }
`;

const BY = [
  { id: "rail", label: "on the rail" },
  { id: "ring", label: "on the ring" },
] as const;

/** With the lens tilted: what each point should read, what it did read, and how much more or less it takes. */
export function ReadBack({ plane }: { plane: PlaneSection }) {
  const { shot, edit, problemAt, cautionAt } = useBench();
  const { units } = usePreferences();
  const setting = plane.setting;
  if (!setting) return null;
  const hasRail = plane.checks.some((check) => check.rail_mm !== null);
  const fresh: Back = {
    by: hasRail ? "rail" : "ring",
    tilt_deg: Number(setting.tilt_deg.toFixed(1)),
    faces_deg: Number(setting.faces_deg.toFixed(1)),
    readings: [],
  };
  const back = planeOf(shot).read_back ?? fresh;
  // From the draft as it is then: the panel follows a little behind, and two readings may be typed within that.
  const save = (change: (now: Back) => Partial<Back>) =>
    edit((draft) => {
      const now = planeOf(draft).read_back ?? fresh;
      return withPlane(draft, { read_back: { ...now, ...change(now) } });
    });
  const read = (point: string, reading_mm: number | null) =>
    save((now) => ({
      readings: [
        ...now.readings.filter((each) => each.point !== point),
        ...(reading_mm === null ? [] : [{ point, reading_mm }]),
      ],
    }));
  const correction = plane.correction;
  const take = () => {
    if (!correction) return;
    save(() => ({
      tilt_deg: Number(Math.min(correction.set_tilt_deg, 45).toFixed(2)),
      faces_deg: Number(correction.set_faces_deg.toFixed(1)),
      readings: [],
    }));
  };
  return (
    <>
      <Lead>
        Tilted and focused: move the camera until each point is sharp, the ring left alone, and type what you
        read.
      </Lead>
      <Fields>
        <Wide>
          <Segments
            label="Read"
            value={back.by}
            options={BY}
            onChange={(way) => save(() => ({ by: way, readings: [] }))}
          />
        </Wide>
        <QuantityField
          label="Tilt scale shows"
          kind="plain"
          unit="°"
          value={back.tilt_deg}
          step={by(0.1, 1, 0.1)}
          onChange={(tilt_deg) => save(() => ({ tilt_deg }))}
          problem={problemAt("/plane/read_back/tilt_deg")}
        />
        <QuantityField
          label="Lens faces"
          kind="plain"
          unit="°"
          value={back.faces_deg}
          step={by(1, 15, -360)}
          onChange={(faces_deg) => save(() => ({ faces_deg }))}
          problem={problemAt("/plane/read_back/faces_deg")}
          hint="0 right, −90 down"
        />
      </Fields>
      {plane.checks.map((check) => {
        const expected = back.by === "ring" ? check.ring_mm : check.rail_mm;
        return (
          <Row key={check.point}>
            <div>
              {check.name}
              <small>
                {expected === null
                  ? "no mark to expect"
                  : `expected at ${fixed(expected, units, 2)} ${units}`}
              </small>
              {check.words ? <small>{unbroken(check.words)}</small> : null}
            </div>
            <QuantityField
              label="Read"
              kind="length"
              value={back.readings.find((each) => each.point === check.point)?.reading_mm ?? null}
              step={by(0.1, 1, -100_000)}
              onChange={(value) => read(check.point, value)}
              onEmpty={() => read(check.point, null)}
              emptyHint="not read"
            />
          </Row>
        );
      })}
      {correction ? (
        <AnswerBox style={{ marginTop: 12 }}>
          <strong>
            {correction.within
              ? correction.held
                ? "It lies right"
                : "The tilt is right, the stop is not"
              : `${Math.abs(correction.more_deg).toFixed(1)}° ${correction.more_deg < 0 ? "less" : "more"}: set ${correction.set_tilt_deg.toFixed(1)}°`}
          </strong>
          {correction.words}
          {correction.within ? null : (
            <div style={{ marginTop: 8 }}>
              <Button onPress={take}>I have set it: read again</Button>
            </div>
          )}
        </AnswerBox>
      ) : (
        <Lead>{problemAt("/plane/read_back") ?? cautionAt("/plane/read_back") ?? ""}</Lead>
      )}
    </>
  );
}
