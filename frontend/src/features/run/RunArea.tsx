import styled from "styled-components";
import { Staircase } from "../../shot/Staircase";
import { StepTable } from "../../shot/StepTable";
import { stairsOf, lastTaken } from "./standing";
import { useRun } from "../../shot/useRun";

const Area = styled.section`
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  gap: 12px;
  padding: 12px 16px 8px 20px;
  min-height: 0;
  min-width: 0;
  overflow: auto;
`;

/** The steps, and under them the staircase filling up while the run goes on. */
export function RunArea({ shotId }: { shotId: string }) {
  const { run } = useRun(shotId);
  const last = run ? run.plan.steps[lastTaken(run)] : undefined;
  return (
    <Area>
      <StepTable />
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
