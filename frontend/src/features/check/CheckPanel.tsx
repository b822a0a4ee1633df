import { useState } from "react";
import styled from "styled-components";
import { sentenceOf } from "../../api/client";
import type { Job } from "../../api/types";
import { Button, LinkButton } from "../../controls/Button";
import { FactList } from "../../controls/FactList";
import { AnswerBox, Heading, Lead, Section } from "../../controls/panel";
import { Fold } from "../../controls/Fold";
import { usePreferences } from "../../look/preferences";
import { useRun } from "../../shot/useRun";
import { Findings } from "./Findings";
import { FromFolder } from "./FromFolder";
import { KeepStep } from "./KeepStep";
import { MoreFrames } from "./MoreFrames";
import { useCheck, isOpen, type Check, type Looked } from "./useCheck";
import { factsOf, METHOD_WORDS } from "./words";

const Bar = styled.progress`
  display: block;
  width: 100%;
  height: 10px;
  margin: 10px 0;
  accent-color: ${({ theme }) => theme.sharp};
`;

const Buttons = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  margin-top: 8px;
`;

const Takeaways = styled.div`
  display: grid;
  gap: 8px;
  margin-bottom: 14px;
`;

/** Station 8: can the set come down? */
export function CheckPanel({ shotId }: { shotId: string }) {
  const check = useCheck(shotId);
  const { job, report, whose } = check;
  const { run } = useRun(shotId);
  const [again, setAgain] = useState(false);
  const before = whose === "before";
  const looked = report && job ? { report, job, check, shotId } : null;
  return (
    <>
      <Heading>Can the set come down?</Heading>
      {check.failed ? <Lead>{sentenceOf(check.failed)}</Lead> : null}
      {isOpen(job) ? <Working job={job as Job} check={check} /> : null}
      {job?.state === "failed" && !before && !check.loading ? (
        <AnswerBox data-trouble="">
          <strong>{job.message}</strong>
          {job.remedy}
        </AnswerBox>
      ) : null}
      {before && !isOpen(job) && !check.loading ? (
        <AnswerBox>
          <strong>The frames of the last run are not looked through yet.</strong>
        </AnswerBox>
      ) : looked ? (
        <>
          {whose === "elsewhere" ? (
            <Lead>Not the frames of the last run, which are in {run?.folder}.</Lead>
          ) : null}
          <Answered {...looked} />
        </>
      ) : null}
      {!job && !check.loading ? (
        <Lead>
          Every frame is measured before the set is taken down: what is sharp in none, what moved, what is
          missing.
        </Lead>
      ) : null}
      {isOpen(job) || check.loading ? null : before ? (
        <>
          <FromFolder key={run?.run_id} check={check} shotId={shotId} />
          {looked ? <FoundBefore {...looked} /> : null}
        </>
      ) : report ? (
        <Fold title="Other frames, or again" isOpen={again} onOpenChange={setAgain}>
          <FromFolder
            key={whose}
            check={check}
            shotId={shotId}
            at={whose === "elsewhere" ? undefined : job?.folder}
          />
        </Fold>
      ) : (
        <FromFolder check={check} shotId={shotId} at={job?.folder} />
      )}
    </>
  );
}

const STANDS: Record<Job["state"], string> = {
  waiting: "Waiting for its turn",
  running: "Looking",
  pausing: "Coming to rest",
  paused: "At rest: what is done stays",
  cancelling: "Stopping",
  done: "Done",
  failed: "Failed",
  cancelled: "Stopped",
};

function Working({ job, check }: { job: Job; check: Check }) {
  const resting = job.state === "paused" || job.state === "pausing";
  return (
    <AnswerBox aria-live="polite">
      <strong>{STANDS[job.state]}</strong>
      <Bar value={job.share} max={1} aria-label="Done" />
      <p>{job.words || job.folder}</p>
      <Buttons>
        <Button
          onPress={() => check.rest.mutate({ jobId: job.job_id, on: resting })}
          isDisabled={job.state === "cancelling"}
        >
          {resting ? "Go on" : "Rest"}
        </Button>
        <Button onPress={() => check.stop.mutate(job.job_id)} isDisabled={job.state === "cancelling"}>
          Give up
        </Button>
      </Buttons>
    </AnswerBox>
  );
}

/** The plan came, or changed, after the frames were looked through: judging them by it takes no new frames. */
function PlanNow({ job, check }: { job: Job; check: Check }) {
  if (job.plan_now !== "other") return null;
  return (
    <AnswerBox>
      This was judged{" "}
      {job.report?.plan.step_mm == null ? "without the plan of this shot" : "by an earlier plan"}.
      <Button
        isPending={check.start.isPending}
        onPress={() =>
          check.start.mutate({
            folder: job.folder,
            methods: job.methods,
            slabs: job.slabs,
            putBack: job.put_back,
          })
        }
      >
        Judge it by the plan as it is now
      </Button>
    </AnswerBox>
  );
}

/** What the look before the last run said: of other frames, and nothing is asked of the run by it. */
function FoundBefore(looked: Looked) {
  const [open, setOpen] = useState(false);
  return (
    <Fold title="What was found before this run" isOpen={open} onOpenChange={setOpen}>
      <Answered {...looked} before />
    </Fold>
  );
}

function Answered({ report, job, check, shotId, before = false }: Looked & { before?: boolean }) {
  const { verdict } = report;
  const { units } = usePreferences();
  const file = (kind: string) => `/api/jobs/${job.job_id}/files/${kind}`;
  const { folder, methods, slabs } = job;
  return (
    <>
      <AnswerBox {...(verdict.may_come_down ? {} : { "data-trouble": "" })}>
        <strong>{verdict.answer}</strong>
        {verdict.action}
      </AnswerBox>
      {before ? null : (
        <>
          <PlanNow job={job} check={check} />
          <MoreFrames report={report} job={job} check={check} shotId={shotId} />
        </>
      )}
      <Findings
        report={report}
        putBack={job.put_back}
        busy={check.start.isPending}
        onPutBack={
          before
            ? null
            : (putBack) => check.start.mutate({ folder, methods, slabs, numbers: report.plan, putBack })
        }
      />
      <FactList rows={factsOf(report, units)} />
      {report.against_plan.map((sentence) => (
        <Lead key={sentence}>{sentence}</Lead>
      ))}
      {report.step_measured ? <KeepStep key={job.job_id} jobId={job.job_id} /> : null}
      {report.not_judged.map((sentence) => (
        <Lead key={sentence}>{sentence}</Lead>
      ))}
      <Section>Take away</Section>
      <Takeaways>
        {report.pictures.map((picture) => (
          <LinkButton key={picture.method} href={file(`proof-${picture.method}`)} download="">
            Proof, {METHOD_WORDS[picture.method].toLowerCase()}
          </LinkButton>
        ))}
        {report.slabs.map((slab, index) => {
          const number = String(index + 1).padStart(2, "0");
          const [first = 0, last = first] = [slab.frames[0], slab.frames.at(-1)];
          return (
            <LinkButton key={slab.file} href={file(`slab-${number}`)} download="">
              Slab {index + 1}: frames {first + 1} to {last + 1}
            </LinkButton>
          );
        })}
        {report.depth ? (
          <LinkButton href={file("depth")} download="">
            Depth map, 16 bits
          </LinkButton>
        ) : null}
        <LinkButton href={file("sheet")} download="">
          Sheet of all frames
        </LinkButton>
        <LinkButton href={file("report")} download="">
          Report as JSON
        </LinkButton>
      </Takeaways>
    </>
  );
}
