import styled from "styled-components";
import { Button } from "../../controls/Button";
import type { Running } from "../../shot/useRun";
import { lastTaken } from "./standing";

const Row = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  margin-bottom: 14px;
`;

/** What else can be done with the run; pausing comes last, where the large button does not do it. */
export function Besides({ running, pausedAbove }: { running: Running; pausedAbove: boolean }) {
  const { run, tell, busy } = running;
  if (!run) return null;
  const next = run.next_frame;
  const last = lastTaken(run);
  return (
    <Row>
      <Button
        onPress={() => tell(run.devices.camera === "hand" ? "once_more" : "retake", last)}
        isPending={busy}
        isDisabled={last < 0 || run.state === "stopped" || (run.driven && run.devices.rail !== "hand")}
      >
        Once more
      </Button>
      <Button
        onPress={() => tell("skipped", next)}
        isPending={busy}
        isDisabled={next === null || run.state === "paused"}
      >
        Leave it out
      </Button>
      <Button
        onPress={() => tell("stopped")}
        isPending={busy}
        isDisabled={run.state === "stopped" || run.state === "finished"}
      >
        Stop here
      </Button>
      {run.state === "running" && !pausedAbove ? (
        <Button onPress={() => tell("paused")} isPending={busy}>
          Pause
        </Button>
      ) : null}
    </Row>
  );
}
