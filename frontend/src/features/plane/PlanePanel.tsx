import { useState } from "react";
import { Link } from "react-aria-components";
import styled from "styled-components";
import type { PlaneSection } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { Fold, isRoomy, RoomyFold } from "../../controls/Fold";
import { length, stop } from "../../units/format";
import { Cautions } from "../../shot/Cautions";
import { FactList } from "../../controls/FactList";
import { AnswerBox, Heading, Lead } from "../../controls/panel";
import { sentence, useBench } from "../../shot/ShotContext";
import { lastSteps } from "../../shot/tilted";
import { Dials } from "./Dials";
import { OtherTrades } from "./OtherTrades";
import { PointList } from "./PointList";
import { RailCounts } from "./RailCounts";
import { ReadBack } from "./ReadBack";
import { StripPick } from "./StripPick";
import { WhereToAim } from "./WhereToAim";

const Steps = styled.ol`
  margin: 0 0 14px;
  padding-left: 20px;
  list-style: decimal;
  li {
    margin-bottom: 3px;
    line-height: 1.35;
  }
`;

const Practise = styled(Link)`
  display: flex;
  align-items: center;
  min-height: 40px;
`;

/** Station 4: from the points that must be sharp to the setting that lays the plane across them. */
export function PlanePanel({ shotId }: { shotId: string }) {
  const { shot, plan, way } = useBench();
  const [open, setOpen] = useState<string | null>(null);
  const plane = plan?.plane;
  const fold = (id: string) => ({
    isOpen: open === id,
    onOpenChange: (wide: boolean) => setOpen(wide ? id : null),
  });
  return (
    <>
      <Heading>Where does the plane lie?</Heading>
      {plane ? (
        <>
          <Answer plane={plane} />
          {plane.setting && plane.setting.tilt_deg >= 0.05 ? (
            <>
              <Dials setting={plane.setting} upright={shot.camera_on_its_side} />
              <RoomyFold title="Step by step">
                <Steps>
                  {[...plane.steps, ...lastSteps(way, plane)].map((step) => (
                    <li key={step}>{step}</li>
                  ))}
                </Steps>
              </RoomyFold>
            </>
          ) : null}
        </>
      ) : (
        <Lead>{plan ? plan.verdict.headline : "Working it out…"}</Lead>
      )}
      <Troubles />
      <Cautions station="plane" />
      <PointList />
      <WhereToAim />
      {plane?.setting ? (
        <>
          <Fold title="Look, and read back" {...fold("read")}>
            {isRoomy() ? null : <RailCounts />}
            <ReadBack plane={plane} />
          </Fold>
          <Fold title="All the numbers" {...fold("numbers")}>
            <Numbers plane={plane} />
          </Fold>
        </>
      ) : null}
      {plane && plane.angle_deg !== null ? (
        <Practise href={`/practice?shot=${shotId}`}>Practise on this set, before it is built</Practise>
      ) : null}
      <Fold title="Turn, shift and join" {...fold("other")}>
        <OtherTrades plane={plane ?? null} />
      </Fold>
      <Fold title="Only a narrow strip" {...fold("strip")}>
        <StripPick plane={plane ?? null} />
      </Fold>
    </>
  );
}

const Trouble = styled.p`
  margin: 0 0 8px;
  padding: 7px 0 7px 10px;
  border-left: 3px dashed ${({ theme }) => theme.trouble};
  font-size: 13px;
  line-height: 1.35;
`;

/** What keeps a plane from being laid. */
function Troubles() {
  const { plan } = useBench();
  const found = plan?.findings.filter(
    (finding) => finding.severity === "trouble" && finding.field.startsWith("/plane"),
  );
  return found?.map((finding) => <Trouble key={finding.code + finding.field}>{sentence(finding)}</Trouble>);
}

function Answer({ plane }: { plane: PlaneSection }) {
  const { units } = usePreferences();
  const { setting } = plane;
  const known = plane.angle_deg !== null;
  // What the setting leaves: more than the plane itself where the mechanism stays on clicks only.
  const off = setting ? (plane.left_over_mm ?? 0) : (plane.largest_deviation_mm ?? 0);
  const limit =
    plane.steepest_deg === null
      ? "This lens does not tilt."
      : `This rig follows a subject up to ${plane.steepest_deg.toFixed(1)}° from square.`;
  if (!known) {
    return (
      <AnswerBox>
        <strong>
          {plane.points.length ? "Not enough points read yet" : "Name the points that must be sharp"}
        </strong>
        Two tell how it leans along the line between them, a third beside the line the rest; or a flat part by
        its angle. {limit}
      </AnswerBox>
    );
  }
  const unsure =
    setting?.tilt_uncertainty_deg === null || setting?.tilt_uncertainty_deg === undefined
      ? ""
      : ` ± ${setting.tilt_uncertainty_deg.toFixed(2)}°`;
  return (
    <AnswerBox {...(plane.limited ? { "data-trouble": "" } : {})}>
      <strong>
        {setting
          ? setting.tilt_deg < 0.05
            ? "No tilt"
            : `Tilt ${setting.tilt_deg.toFixed(1)}°${unsure}, facing ${setting.faces}`
          : `The plane lies ${plane.angle_deg?.toFixed(0)}° from square`}
      </strong>
      {setting ? `The plane lies ${plane.angle_deg?.toFixed(1)}° from square; ` : ""}
      {plane.across_assumed ? "across the line of the points taken as square; " : ""}
      {plane.limited && setting
        ? `this is all the lens can do: ${length(off, units)} is left over` +
          (plane.turn_rest
            ? `; moved ${plane.turn_rest.angle_deg.toFixed(1)}° round the subject, ${plane.turn_rest.toward}, it reaches the plane. `
            : ". ")
        : off < 1e-6
          ? "every point lies on it. "
          : `${setting ? "the" : "The"} worst point lies ${length(off, units)} off it. `}
      {setting && plane.covering_f_number
        ? `${stop(plane.covering_f_number)} is the widest stop that holds every point. `
        : setting
          ? "No stop holds every point. "
          : ""}
      {limit}
    </AnswerBox>
  );
}

function Numbers({ plane }: { plane: PlaneSection }) {
  const { units } = usePreferences();
  const setting = plane.setting;
  if (!setting) return null;
  const circle = plane.circle;
  const rows: [string, string][] = [
    ["Tilt", `${setting.tilt_deg.toFixed(2)}°`],
    ["Tilt when the size is held", `${setting.size_held_tilt_deg.toFixed(2)}°`],
    [
      "Mechanism turned by",
      `${Math.abs(setting.rotation_deg).toFixed(1)}° ${setting.rotation_deg < 0 ? "anticl." : "clockw."}`,
    ],
    [
      "Direction known to",
      setting.faces_uncertainty_deg == null ? "not known" : `± ${setting.faces_uncertainty_deg.toFixed(2)}°`,
    ],
    ["Lens to sensor (thin lens)", length(setting.image_distance_mm, units)],
    ["Focus moves by", length(setting.focus_moves_mm, units)],
    ["Lens to hinge", length(setting.hinge_mm, units)],
    ["Size on the sensor", `${setting.magnification.toFixed(3)}×`],
    [
      "Picture moves, by the pivot",
      setting.picture_moves_mm == null ? "not known" : length(Math.abs(setting.picture_moves_mm), units),
    ],
    ["Lit circle needed", circle ? length(circle.needed_mm * 2, units) : "—"],
    ["Lit circle there is", circle?.radius_mm ? length(circle.radius_mm * 2, units) : "not known"],
  ];
  return <FactList rows={rows} />;
}
