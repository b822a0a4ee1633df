import type { PracticeResult } from "../../api/types";
import { Button } from "../../controls/Button";
import { AnswerBox } from "../../controls/panel";

/** What a drill of ten presses was worth. */
export function Ended({ result, onAgain }: { result: PracticeResult; onAgain: () => void }) {
  return (
    <>
      <AnswerBox role="status">
        <strong>{Math.round(result.score)} of 100</strong>
        {result.said}
      </AnswerBox>
      <Button data-weight="main" onPress={onAgain}>
        Another one
      </Button>
    </>
  );
}
