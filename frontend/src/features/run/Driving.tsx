import { useEffect, useRef } from "react";
import styled from "styled-components";
import { sentenceOf } from "../../api/client";
import { FactList } from "../../controls/FactList";
import { AnswerBox, Heading, Lead } from "../../controls/panel";
import { usePreferences } from "../../look/preferences";
import { fonts } from "../../look/theme";
import { percent, seconds, stop } from "../../units/format";
import { AsTheyCome } from "./AsTheyCome";
import { Besides } from "./Besides";
import { ByDevices } from "./ByDevices";
import { mainButton } from "./devices";
import { Ended } from "./Ended";
import { FromCamera } from "./FromCamera";
import { Main } from "./Main";
import { Ticks } from "./Ticks";
import { figureOf, goneSeconds, knobWords, lastTaken, nearWords, sideWords, takenCount } from "./standing";
import type { Running } from "../../shot/useRun";

const Figure = styled.output`
  display: block;
  font: 600 clamp(52px, 6vw, 76px) / 1.05 ${fonts.figures};
  letter-spacing: -0.03em;
`;

/** A run under way: the next thing to do is the largest thing on the screen. */
export function Driving({ running }: { running: Running }) {
  const { run, tell, drive, busy, error } = running;
  const { units } = usePreferences();
  const next = run?.next_frame ?? null;
  const act = run && next !== null ? mainButton(run) : null;
  const press = () => {
    if (!run || !act || busy) return;
    if (act.act === "taken" || act.act === "set") tell(act.act, next);
    if (act.act === "pause") tell("paused");
    if (act.act === "go on") tell("went_on");
    if (act.act === "drive on") drive.mutate({ at: run, devices: run.devices });
  };
  useSpace(press);
  const top = useRef<HTMLDivElement>(null);
  const stirred = run ? `${run.driven} ${run.trouble}` : "";
  useEffect(() => {
    void top.current?.scrollIntoView({ block: "end" });
  }, [stirred]);
  if (!run) return null;
  const step = next === null ? undefined : run.plan.steps[next];
  const last = lastTaken(run);
  const figure = step ? figureOf(run, step, units) : null;
  return (
    <>
      <div ref={top} />
      {step && figure ? (
        <>
          <Heading>
            Next: frame {step.frame + 1} of {run.plan.steps.length}
          </Heading>
          <Lead>{figure.over}</Lead>
          <Figure aria-label="Set to">{figure.figure}</Figure>
          <Lead>
            {figure.under}. {knobWords(run, step)} {sideWords(run, step)}
          </Lead>
          {run.trouble ? (
            <AnswerBox data-trouble role="alert">
              <strong>The run stands still.</strong>
              {run.trouble}
            </AnswerBox>
          ) : null}
          {/* Disabled for the while of an answer it would lose the focus. */}
          <Main onPress={press} isPending={busy} isDisabled={act?.act === "none"}>
            {act?.words}
          </Main>
        </>
      ) : (
        <Ended run={run} />
      )}
      {error ? <Lead role="alert">{sentenceOf(error)}</Lead> : null}
      <AsTheyCome run={run} />
      <Besides running={running} pausedAbove={act?.act === "pause"} />
      <FactList
        rows={[
          ["taken", `${takenCount(run)} of ${run.plan.steps.length}`],
          ["all frames alike", `${run.plan.shutter_words} ${stop(run.plan.f_number)} ISO ${run.plan.iso}`],
          ["wait after a move", run.plan.settle_s === null ? "—" : seconds(run.plan.settle_s)],
          ["gone, planned", `${seconds(Math.round(goneSeconds(run)))}, ${seconds(run.plan.time_s)}`],
          ...(run.frames_left === null
            ? []
            : [
                [
                  "card",
                  `${run.frames_left} left, ${run.plan.steps.length - takenCount(run)} to come`,
                ] as const,
              ]),
          ...(run.battery === null ? [] : [["battery", percent(run.battery)] as const]),
          ["the subject holds", run.plan.hold_still_s === null ? "for ever" : seconds(run.plan.hold_still_s)],
        ]}
      />
      <Ticks run={run} />
      {run.state === "stopped" || run.driven || (next === null && !run.folder) ? null : (
        <FromCamera running={running} />
      )}
      {next === null || run.driven ? null : <ByDevices key={run.run_id} running={running} run={run} />}
      {run.shot_changed ? (
        <Lead>The shot was changed since this run began; the run goes on as it was.</Lead>
      ) : null}
      {step && last >= 0 && run.devices.camera === "hand" ? (
        <Lead>
          If the run was broken off: the last frame counted is {last + 1},{" "}
          {nearWords(run.plan.steps[last] ?? step, units)}. Look at the camera’s last picture; if it is one
          more, press Taken.
        </Lead>
      ) : null}
    </>
  );
}

/** Space is the large button, wherever the focus is, but in a field and on another button. */
function useSpace(act: () => void) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const at = event.target as HTMLElement;
      if (
        event.key !== " " ||
        event.repeat ||
        at.closest("button, input, textarea, select, [contenteditable]")
      )
        return;
      event.preventDefault();
      act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });
}
