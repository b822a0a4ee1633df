import { useState } from "react";
import styled from "styled-components";
import { sentenceOf } from "../../api/client";
import type { CheckReport, Job } from "../../api/types";
import { Button, LinkButton } from "../../controls/Button";
import { FactList } from "../../controls/FactList";
import { AnswerBox, Heading, Lead, Section } from "../../controls/panel";
import { Fold } from "../../controls/Fold";
import { Findings } from "./Findings";
import { FromFolder } from "./FromFolder";
import { useCheck, isOpen, type Check } from "./useCheck";
import { factsOf, METHOD_WORDS } from "./words";

const Bar = styled.progress`
  display: block;
  width: 100%;
  height: 10px;
  margin: 10px 0;
  accent-color: ${({ theme }) => theme.sharp};
`;

const Takeaways = styled.div`
  display: grid;
  gap: 8px;
  margin-bottom: 14px;
`;

/** Station 8: can the set come down? */
export function CheckPanel({ shotId }: { shotId: string }) {
  const check = useCheck(shotId);
  const { job, report } = check;
  const [again, setAgain] = useState(false);
  return (
    <>
      <Heading>Can the set come down?</Heading>
      {check.failed ? <Lead>{sentenceOf(check.failed)}</Lead> : null}
      {isOpen(job) ? <Working job={job as Job} check={check} /> : null}
      {job?.state === "failed" ? (
        <AnswerBox data-trouble="">
          <strong>{job.message}</strong>
          {job.remedy}
        </AnswerBox>
      ) : null}
      {report ? <Answered report={report} jobId={job?.job_id ?? ""} /> : null}
      {!job && !check.loading ? (
        <Lead>
          Every frame is measured before the set is taken down: what is sharp in none, what moved, what is
          missing.
        </Lead>
      ) : null}
      {isOpen(job) ? null : report ? (
        <Fold title="Other frames, or again" isOpen={again} onOpenChange={setAgain}>
          <FromFolder check={check} shotId={shotId} />
        </Fold>
      ) : (
        <FromFolder check={check} shotId={shotId} />
      )}
    </>
  );
}

function Working({ job, check }: { job: Job; check: Check }) {
  return (
    <AnswerBox aria-live="polite">
      <strong>
        {job.state === "waiting"
          ? "Waiting for its turn"
          : job.state === "cancelling"
            ? "Stopping"
            : "Looking"}
      </strong>
      <Bar value={job.share} max={1} aria-label="Done" />
      <p>{job.words || job.folder}</p>
      <Button onPress={() => check.stop.mutate(job.job_id)} isDisabled={job.state === "cancelling"}>
        Stop
      </Button>
    </AnswerBox>
  );
}

function Answered({ report, jobId }: { report: CheckReport; jobId: string }) {
  const { verdict } = report;
  const file = (kind: string) => `/api/jobs/${jobId}/files/${kind}`;
  return (
    <>
      <AnswerBox {...(verdict.may_come_down ? {} : { "data-trouble": "" })}>
        <strong>{verdict.answer}</strong>
        {verdict.action}
      </AnswerBox>
      <Findings report={report} />
      <FactList rows={factsOf(report)} />
      {[...report.against_plan, ...report.not_judged].map((sentence) => (
        <Lead key={sentence}>{sentence}</Lead>
      ))}
      <Section>Take away</Section>
      <Takeaways>
        {report.pictures.map((picture) => (
          <LinkButton key={picture.method} href={file(`proof-${picture.method}`)} download="">
            Proof, {METHOD_WORDS[picture.method].toLowerCase()}
          </LinkButton>
        ))}
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
