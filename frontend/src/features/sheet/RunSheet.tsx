import { shutter } from "../../api/shutter";
import type { ReactNode } from "react";
import { useParams, useSearchParams } from "react-router";
import styled from "styled-components";
import { sentenceOf } from "../../api/client";
import type { Plan, Shot, WayAnswer } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { Button, LinkButton } from "../../controls/Button";
import { useArrival } from "../../controls/useArrival";
import { told } from "../../controls/panel";
import { length, percent, seconds, size, stop, times, unbroken } from "../../units/format";
import { useShot } from "../../shot/useShot";
import { usePlan } from "../../shot/usePlan";
import { handTicks } from "./handTicks";
import { nameOf } from "../../gear/words";
import { lastSteps } from "../../shot/tilted";
import { Steps } from "../../shot/StepTable";

const Sheet = styled.main`
  max-width: 820px;
  margin: 0 auto;
  padding: 28px 28px 60px;
  h1 {
    font-size: 26px;
    line-height: 1.2;
  }
  h2 {
    font-size: 15px;
    margin: 20px 0 6px;
  }
  overflow-wrap: anywhere;
  ul {
    margin-left: 18px;
  }
  @media print {
    padding: 0;
    max-width: none;
    color: #000;
    font-size: 11pt;
    tr {
      break-inside: avoid;
    }
    thead {
      display: table-header-group;
    }
    th {
      position: static !important;
      background: none !important;
      color: #000 !important;
    }
    td {
      color: #000 !important;
    }
  }
`;

const Actions = styled.div`
  display: flex;
  gap: 10px;
  margin-bottom: 22px;
  @media print {
    display: none;
  }
`;

const Facts = styled.dl`
  display: grid;
  grid-template-columns: repeat(2, max-content minmax(0, 1fr));
  gap: 4px 16px;
  dt {
    opacity: 0.75;
  }
  dd {
    font-weight: 600;
  }
`;

const Paper = styled.div`
  min-height: 100%;
  @media print {
    background: #fff;
  }
`;

/** Ruled, to write on. */
const Room = styled.div`
  height: 120px;
  background: repeating-linear-gradient(transparent 0 29px, currentColor 29px 30px);
  opacity: 0.25;
`;

const Tick = styled.p.attrs<{ children?: ReactNode }>(told)`
  padding: 3px 0 3px 22px;
  text-indent: -22px;
  &::before {
    content: "";
    display: inline-block;
    width: 12px;
    height: 12px;
    margin-right: 10px;
    border: 1.2px solid currentColor;
    vertical-align: -1px;
  }
`;

/** What to take to the table: the settings, the order, the steps. Made to be printed. */
export function RunSheet() {
  const { shotId = "" } = useParams();
  const query = useShot(shotId);
  if (query.isError) return <Sheet>{sentenceOf(query.error)}</Sheet>;
  return query.data ? <Filled shotId={shotId} shot={query.data.shot} /> : null;
}

function Filled({ shotId, shot }: { shotId: string; shot: Shot }) {
  const { units } = usePreferences();
  const [search] = useSearchParams();
  const { plan } = usePlan(shot, units);
  useArrival(`Run sheet · ${shot.name}`, plan ? "sheet" : null);
  const wanted = search.get("way") ?? shot.chosen_way;
  const way = plan?.ways.find((each) => (wanted ? each.id === wanted : each.recommended));
  if (!plan) return null;
  return (
    <Paper>
      <Sheet>
        <Actions>
          <LinkButton href={`/shots/${shotId}/run`}>Back to the shot</LinkButton>
          <Button data-weight="main" onPress={() => window.print()}>
            Print
          </Button>
        </Actions>
        <h1>{shot.name}</h1>
        <p>{shot.subject.what}</p>
        {way?.frames ? (
          <Filling shot={shot} plan={plan} way={way} />
        ) : (
          <p>
            {plan.verdict.headline} {plan.verdict.detail}
          </p>
        )}
      </Sheet>
    </Paper>
  );
}

function Filling({ shot, plan, way }: { shot: Shot; plan: Plan; way: WayAnswer }) {
  const { units } = usePreferences();
  const reach = plan.reach;
  if (!reach) return null;
  const back = way.back_off;
  const row = shot.rig.filter((_, index) => !back?.without.includes(index)).reverse();
  const out = shot.rig.filter((_, index) => back?.without.includes(index)).map(({ gear }) => nameOf(gear));
  const wider = back?.factor ?? 1;
  const tilted = way.id.startsWith("tilt");
  return (
    <>
      <h2>{way.title}</h2>
      <Facts>
        <dt>body</dt>
        <dd>{shot.body.name || "own numbers"}</dd>
        <dt>size on the sensor</dt>
        <dd>{times(back?.magnification ?? reach.magnification)}</dd>
        <dt>body outward</dt>
        <dd>
          {row
            .map((placed) => `${nameOf(placed.gear)}${placed.reversed ? ", turned round" : ""}`)
            .join(" · ")}
        </dd>
        <dt>frame</dt>
        <dd>{size(reach.frame_width_mm * wider, reach.frame_height_mm * wider, units)}</dd>
        <dt>rail</dt>
        <dd>{shot.stack.rail_name || "none named"}</dd>
        <dt>lens to nearest point</dt>
        <dd>{length(back ? back.room_mm - (way.focuses_mm[0] ?? 0) : reach.nearest_point_mm, units, 4)}</dd>
        <dt>aperture</dt>
        <dd>
          {stop(way.f_number)} marked, works as {stop(way.effective_f_number)}
        </dd>
        <dt>sensor mark to focus</dt>
        <dd>{length(back?.subject_to_sensor_mm ?? reach.subject_to_sensor_mm, units, 4)}</dd>
        <dt>exposure</dt>
        <dd>
          {shutter(way.steady.shutter_s)}, ISO {plan.light?.iso}
        </dd>
        <dt>time in all</dt>
        <dd>{seconds(way.time_s)}</dd>
        <dt>covers</dt>
        <dd>
          {way.points_held != null
            ? `${way.points_held} points over ${length(plan.depth_mm, units)}`
            : `${percent(way.cover)} of ${length(plan.depth_mm, units)}`}
        </dd>
        <dt>holds still</dt>
        <dd>{shot.subject.hold_still_s ? seconds(shot.subject.hold_still_s) : "for ever"}</dd>
        <dt>the camera is</dt>
        <dd>{shot.steadiness.held === "hand" ? "in the hand" : "on a support"}</dd>
        <dt>on the set</dt>
        <dd>{shot.on_set.map((thing) => nameOf(thing.gear)).join(" · ") || "nothing named"}</dd>
      </Facts>
      <Mind plan={plan} way={way} />
      <h2>In order</h2>
      <Tick>
        Exposure, white balance and focus to manual
        {shot.steadiness.held === "hand" ? "." : "; stabiliser off on the support."}
      </Tick>
      {back ? (
        <Tick>
          {out.length ? `Take out ${out.join(" and ")}. ` : ""}Stand back until the sensor mark is{" "}
          {length(back.subject_to_sensor_mm, units, 4)} from the plane of focus: the frame is then{" "}
          {length(reach.frame_width_mm * wider, units)} wide. Crop the picture to{" "}
          {size(reach.frame_width_mm, reach.frame_height_mm, units)} after.
        </Tick>
      ) : null}
      {tilted ? (
        <>
          <Tick>Frame with the lens straight.</Tick>
          {plan.plane?.steps.map((step) => (
            <Tick key={step}>{step}</Tick>
          ))}
          {plan.plane?.checks.map((check) => (
            <Tick key={check.point + check.name}>
              Look at {check.name}
              {check.rail_mm != null ? `: sharp at ${length(check.rail_mm, units, 4)} on the rail` : ""}.{" "}
              {check.words}
            </Tick>
          ))}
          {way.frames === 1 && plan.plane
            ? lastSteps(way, plan.plane).map((step) => <Tick key={step}>{step}</Tick>)
            : null}
        </>
      ) : way.kind === "hand" ? (
        handTicks(way, units).map((tick) => <Tick key={tick}>{tick}</Tick>)
      ) : (
        <Tick>
          Focus{" "}
          {way.kind === "one_frame"
            ? `${length(way.focuses_mm[0] ?? 0, units)} behind the nearest point`
            : "on the nearest point"}
          ; frame; check the exposure.
        </Tick>
      )}
      {way.frames === 1 && !tilted && plan.aim?.missed.length ? <Tick>{plan.aim.words[0]}</Tick> : null}
      {way.id === "turn" && plan.plane?.turn ? <Tick>{plan.plane.turn.words}</Tick> : null}
      <StackTicks shot={shot} way={way} tilted={tilted} />
      {shot.notes ? (
        <>
          <h2>Notes</h2>
          <p>{shot.notes}</p>
        </>
      ) : null}
      <h2>Steps</h2>
      <Steps shot={shot} way={way} />
      <h2>What came out</h2>
      <Room aria-hidden />
    </>
  );
}

/** How a stack is begun, moved and merged. */
function StackTicks({ shot, way, tilted }: { shot: Shot; way: WayAnswer; tilted: boolean }) {
  const { units } = usePreferences();
  return (
    <>
      {way.stack && way.stack.first_mm > 0 && way.kind !== "hand" && !tilted ? (
        <Tick>Go on {length(way.stack.first_mm, units)} for the first frame.</Tick>
      ) : null}
      {way.stack && way.stack.first_mm < 0 && !tilted ? (
        <Tick>Go back {length(-way.stack.first_mm, units)} for the spare frames in front.</Tick>
      ) : null}
      {way.stack?.first_rail_mm != null ? (
        <Tick>
          Set the rail to {way.stack.first_rail_mm.toFixed(2)} mm for the first frame, the ring left alone.
        </Tick>
      ) : null}
      {way.kind === "rail" ? (
        <Tick>Approach every position from the same side, to take up the play.</Tick>
      ) : null}
      {way.stack && way.kind !== "hand" ? (
        <Tick>
          {way.stack.steps} steps, {way.frames} frames; settle {seconds(shot.stack.settle_s)} after each move.
        </Tick>
      ) : null}
      {way.stack?.slabs.length ? (
        <Tick>
          Merge in {way.stack.slabs.length} slabs first
          {shot.stack.keep_every > 1 ? ", counted among the frames kept" : ""}:{" "}
          {way.stack.slabs.map((slab) => `${slab[0]}–${slab[1]}`).join(", ")}.
        </Tick>
      ) : null}
    </>
  );
}

/** What stands against the way, and the cautions that were not put aside. */
function Mind({ plan, way }: { plan: Plan; way: WayAnswer }) {
  const said = plan.findings.filter((finding) => finding.severity !== "note" && !finding.put_aside);
  if (!way.against.length && !way.soft && !said.length) return null;
  return (
    <>
      <h2>Mind</h2>
      <ul>
        {[...(way.soft ? [way.soft] : []), ...way.against].map((clause) => (
          <li key={clause}>{unbroken(`${clause[0]?.toUpperCase()}${clause.slice(1)}.`)}</li>
        ))}
        {said.map((finding) => (
          <li key={finding.code + finding.field}>{unbroken(`${finding.message} ${finding.remedy}`)}</li>
        ))}
      </ul>
    </>
  );
}
