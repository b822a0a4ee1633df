import { useState } from "react";
import type { CheckReport } from "../../api/types";
import styled from "styled-components";
import { Staircase } from "../../shot/Staircase";
import { Segments } from "../../controls/Segments";
import { CoveredPicture, type Place } from "./CoveredPicture";
import { Proofs } from "./Proofs";
import { Strips } from "./Strips";
import { treads } from "./treads";
import { ThroughFrames } from "./ThroughFrames";
import { Button } from "../../controls/Button";
import { isOpen, useCheck } from "./useCheck";

const Area = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr);
  padding: 12px 16px 8px 20px;
  min-height: 0;
  min-width: 0;
  overflow: hidden;
`;

const Measured = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr);
  grid-template-rows: minmax(200px, 1.5fr) minmax(140px, 1fr);
  gap: 14px 20px;
  min-height: 0;
`;

const Side = styled.div`
  display: grid;
  align-content: start;
  gap: 8px;
  min-width: 0;
  min-height: 0;
  overflow: auto;
`;

const Below = styled.div`
  grid-column: 1 / -1;
  min-width: 0;
  min-height: 0;
  overflow: auto;
`;

const Empty = styled.div`
  margin: 80px auto;
  max-width: 420px;
  color: ${({ theme }) => theme.soft};
  text-align: center;
  button {
    margin-top: 14px;
  }
`;

const VIEWS = [
  { id: "measured", label: "Measured" },
  { id: "proof", label: "Proof" },
] as const;

type View = (typeof VIEWS)[number]["id"];

/** The staircase as found, with its gaps. */
function Found({ report }: { report: CheckReport }) {
  const stairs = treads(report);
  if (!stairs) return <p>Where the frames stand cannot be told in millimetres: the step is not known.</p>;
  const gaps = report.gaps.flatMap(({ from_mm, to_mm }) =>
    from_mm === null || to_mm === null ? [] : [[from_mm, to_mm] as const],
  );
  return <Staircase stairs={stairs} gaps={gaps} words="a row a frame: outline as planned, filled as found" />;
}

/** The frames as they were found: what is sharp where, and the proofs made of them. */
export function CheckArea({ shotId }: { shotId: string }) {
  const { job, report, whose, loading } = useCheck(shotId);
  const [older, setOlder] = useState(false);
  const [view, setView] = useState<View>("measured");
  const [place, setPlace] = useState<Place | null>(null);
  if (!report || !job) {
    return (
      <Area>
        {loading ? null : (
          <Empty>
            {isOpen(job)
              ? "What is found in the frames will stand here."
              : "No frames were looked through yet. Begin on the left."}
          </Empty>
        )}
      </Area>
    );
  }
  if (whose === "before" && !isOpen(job) && !older) {
    return (
      <Area>
        <Empty>
          <p>What was looked through last are frames of before this run.</p>
          <Button onPress={() => setOlder(true)}>Show what was found in them</Button>
        </Empty>
      </Area>
    );
  }
  const choice = <Segments label="Look at" value={view} options={VIEWS} onChange={setView} />;
  return (
    <Area>
      {view === "proof" ? (
        <Proofs report={report} shotId={shotId} jobId={job.job_id} choice={choice} />
      ) : (
        <Measured>
          <CoveredPicture report={report} jobId={job.job_id} place={place} onPlace={setPlace} />
          <Side>
            {choice}
            <ThroughFrames report={report} jobId={job.job_id} place={place} />
            <Strips report={report} />
          </Side>
          <Below>
            <Found report={report} />
          </Below>
        </Measured>
      )}
    </Area>
  );
}
