import { useNavigate } from "react-router";
import styled from "styled-components";
import { Button } from "../../controls/Button";
import { useRun } from "../../shot/useRun";
import { missing } from "./missing";
import type { Looked } from "./useCheck";

const Main = styled(Button)`
  width: 100%;
  min-height: 52px;
  margin-bottom: 16px;
`;

const counted = (count: number) => (count === 1 ? "one more" : `${count} more`);

/** What is missing, with one press: to the run, where to set it in order; on with the run; or looked at when it came. */
export function MoreFrames({ report, job, check, shotId }: Looked) {
  const { run, tell, busy } = useRun(shotId);
  const navigate = useNavigate();
  if (!run) return null;
  const { toAsk, toCome, came } = missing(report, run);
  const toRun = () => void navigate(`/shots/${shotId}/run`);
  if (toAsk.length) {
    const ask = () => {
      tell("added", null, { focuses_mm: toAsk });
      toRun();
    };
    return (
      <Main data-weight="main" isPending={busy} onPress={ask}>
        Take {counted(toAsk.length)}
      </Main>
    );
  }
  if (toCome) {
    return (
      <Main data-weight="main" onPress={toRun}>
        Go on with the run: {counted(toCome)}
      </Main>
    );
  }
  const { folder, methods, slabs, put_back: putBack } = job;
  // Frames of the run that come into another folder are not found by looking into this one again.
  if (!came || (run.folder !== null && run.folder !== folder)) return null;
  return (
    <Main
      data-weight="main"
      isPending={check.start.isPending}
      onPress={() => check.start.mutate({ folder, methods, slabs, putBack })}
    >
      Look again, with {counted(came)}
    </Main>
  );
}
