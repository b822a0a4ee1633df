import type { Run } from "../../api/types";
import { AnswerBox } from "../../controls/panel";
import { MainLink } from "./Main";

/** What is to be done once nothing is left to take. */
export function Ended({ run }: { run: Run }) {
  if (run.state === "stopped") {
    return (
      <AnswerBox>
        <strong>This run was stopped.</strong>
        What was taken stays counted.
      </AnswerBox>
    );
  }
  return (
    <>
      <AnswerBox>
        <strong>All frames are taken.</strong>
        Look through them before the set comes down.
      </AnswerBox>
      <MainLink href={`/shots/${run.shot_id}/check`}>Check them</MainLink>
    </>
  );
}
