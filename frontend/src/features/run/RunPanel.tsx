import { useState } from "react";
import styled from "styled-components";
import { sentenceOf } from "../../api/client";
import { Button, LinkButton } from "../../controls/Button";
import { Heading, Lead } from "../../controls/panel";
import { TextBox } from "../../controls/TextBox";
import { usePreferences } from "../../look/preferences";
import { frames, seconds } from "../../units/format";
import { parseQuantity } from "../../units/parse";
import type { Run } from "../../api/types";
import { AsCode } from "./AsCode";
import { GreyFrame } from "./GreyFrame";
import { Driving } from "./Driving";
import { useRun, type Running } from "../../shot/useRun";
import { Cautions } from "../../shot/Cautions";
import { useBench } from "../../shot/ShotContext";

const Start = styled(Button)`
  width: 100%;
  min-height: 52px;
  margin: 12px 0 18px;
`;

const Takeaways = styled.div`
  display: grid;
  gap: 8px;
  margin-bottom: 18px;
`;

/** Station 7: the run, frame by frame, by hand; and what to take to the table. */
export function RunPanel({ shotId }: { shotId: string }) {
  const running = useRun(shotId);
  const { run } = running;
  // Where a run is under way that is not known yet, Begin would begin another.
  if (running.loading) return null;
  const over = run !== null && (run.state === "stopped" || run.state === "finished");
  return (
    <>
      {run ? <Driving running={running} /> : null}
      {run ? <GreyFrame running={running} run={run} /> : null}
      {!run || over ? <Begin running={running} again={run !== null} /> : null}
      <ToTheTable shotId={shotId} run={run} />
      <Cautions station="run" />
      <Lead>
        The rail and the camera that can be driven from here are simulated ones; drivers of real ones are not
        there yet.
      </Lead>
    </>
  );
}

function Begin({ running, again }: { running: Running; again: boolean }) {
  const { way } = useBench();
  const { units } = usePreferences();
  const [mark, setMark] = useState("");
  const read = mark.trim() === "" ? null : parseQuantity(mark, "length", units);
  const wrong = read !== null && "problem" in read ? read.problem : undefined;
  return (
    <>
      <Heading>{again ? "Another run" : "Run it"}</Heading>
      <Lead>
        {way?.frames
          ? `${way.title}: ${frames(way.frames)} in ${seconds(way.time_s)}.`
          : "This way has no frames."}
      </Lead>
      {way?.kind === "rail" ? (
        <TextBox
          label={`Rail reads, for the first frame, ${units} (may be left out)`}
          value={mark}
          onChange={setMark}
          problem={wrong}
        />
      ) : null}
      {running.error && !running.run ? <Lead role="alert">{sentenceOf(running.error)}</Lead> : null}
      <Start
        data-weight="main"
        isPending={running.begin.isPending}
        isDisabled={!way?.frames || wrong !== undefined}
        onPress={() =>
          running.begin.mutate({
            way: way?.id ?? null,
            first_mark_mm: read !== null && "value" in read ? read.value : null,
          })
        }
      >
        Begin
      </Start>
    </>
  );
}

function ToTheTable({ shotId, run }: { shotId: string; run: Run | null }) {
  const { way } = useBench();
  return (
    <Takeaways>
      <LinkButton href={`/shots/${shotId}/sheet${way ? `?way=${way.id}` : ""}`}>
        Run sheet to print
      </LinkButton>
      {way?.frames ? (
        <LinkButton href={`/api/shots/${shotId}/steps?way=${way.id}`} download="">
          Step table as CSV
        </LinkButton>
      ) : null}
      {run ? (
        <>
          <LinkButton href={`/api/runs/${run.run_id}/file`} download="">
            This run as a file
          </LinkButton>
          <LinkButton href={`/api/runs/${run.run_id}/steps`} download="">
            This run’s frames as CSV
          </LinkButton>
        </>
      ) : null}
      {run?.plan.kind === "rail" ? <AsCode run={run} /> : null}
      <LinkButton href={`/api/shots/${shotId}/file`} download="">
        Shot as a file
      </LinkButton>
    </Takeaways>
  );
}
