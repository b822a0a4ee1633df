import styled from "styled-components";
import { useStill } from "../../controls/useStill";
import { useLog } from "../../shot/useLog";
import { pastBar } from "../../shot/editing/SaveBar";
import { Entry } from "./Entry";

const Area = styled.section`
  overflow: auto;
  padding: 4px 20px calc(20px + ${pastBar});
  & > article:first-child {
    border-top: 0;
  }
`;

/** The entries of this shot, the newest first. */
export function LogArea({ shotId }: { shotId: string }) {
  const held = useLog({ shot: shotId });
  const entries = useStill(held.entries);
  return (
    <Area aria-label="Entries of this shot">
      {entries.map((entry) => (
        <Entry key={entry.entry_id} entry={entry} held={held} compared={false} />
      ))}
    </Area>
  );
}
