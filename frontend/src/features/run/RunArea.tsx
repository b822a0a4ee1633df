import styled from "styled-components";
import type { Run } from "../../api/types";
import { Staircase } from "../../shot/Staircase";
import { LiveView } from "./LiveView";
import { StepTable } from "../../shot/StepTable";
import { stairsOf, lastTaken } from "./standing";
import { useRun } from "../../shot/useRun";

const Area = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr) auto;
  gap: 12px;
  padding: 12px 16px 8px 20px;
  min-height: 0;
  min-width: 0;
  overflow: auto;
`;

const Side = styled.div`
  display: grid;
  min-height: 0;
  min-width: 0;
  gap: 16px;
  &[data-picture] {
    grid-template-columns: minmax(0, 3fr) minmax(240px, 2fr);
  }
`;

const Pictures = styled.div`
  display: flex;
  flex-direction: column;
  gap: 12px;
  min-height: 0;
  overflow: auto;
  & > * {
    flex: none;
  }
  /* Under a live picture the last frame is there to be recognised. */
  & > * + * {
    width: 45%;
  }
`;

const Table = styled.div`
  overflow: auto;
  min-height: 0;
`;

const Picture = styled.figure`
  margin: 0;
  min-height: 0;
  display: grid;
  grid-template-rows: minmax(0, auto) auto;
  align-content: start;
  gap: 4px;
  img {
    max-width: 100%;
    max-height: 100%;
    object-fit: contain;
    object-position: left top;
  }
  figcaption {
    font-size: 12px;
    color: ${({ theme }) => theme.soft};
  }
`;

/** While a hand has something to decide: nothing is looked through where the devices go on by themselves. */
function showsLive(run: Run) {
  const { rail, camera } = run.devices;
  return camera === "simulated" && run.state !== "stopped" && (!run.driven || rail === "hand");
}

/** The picture that came last, the steps, and under them the staircase filling up while the run goes on. */
export function RunArea({ shotId }: { shotId: string }) {
  const { run } = useRun(shotId);
  const frame = run ? lastTaken(run) : -1;
  const last = run?.plan.steps[frame];
  const name = run?.files[frame] ?? null;
  const live = run && showsLive(run) ? run.next_frame : null;
  return (
    <Area>
      <Side data-picture={name || live !== null ? "" : undefined}>
        {run && (live !== null || name) ? (
          <Pictures>
            {live === null ? null : <LiveView run={run} frame={live} />}
            {name ? (
              <Picture>
                <img
                  src={`/api/runs/${run.run_id}/frames/${frame}/picture?file=${encodeURIComponent(name)}`}
                  alt={`Frame ${frame + 1} as it came`}
                />
                <figcaption>
                  frame {frame + 1}, {name}
                </figcaption>
              </Picture>
            ) : null}
          </Pictures>
        ) : null}
        <Table>
          <StepTable />
        </Table>
      </Side>
      {run ? (
        <Staircase
          stairs={stairsOf(run)}
          here={last?.focus_mm ?? null}
          words="filled: taken; outline: to come; broken: left out"
        />
      ) : null}
    </Area>
  );
}
