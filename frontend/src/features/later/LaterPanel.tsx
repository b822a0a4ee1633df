import type { StationId } from "../../shot/stations";
import { Heading, Lead } from "../../controls/panel";

const WORDS: Partial<Record<StationId, [string, string]>> = {
  log: [
    "Log is not there yet",
    "Here will stand what was set, what came out, and what to do next time. Until then: the notes at station 1 are kept with the shot.",
  ],
};

/** A station that stands on the tape but is not built: said plainly, with what to do meanwhile. */
export function LaterPanel({ station }: { station: StationId }) {
  const [title, text] = WORDS[station] ?? ["Not there yet", ""];
  return (
    <>
      <Heading>{title}</Heading>
      <Lead>{text}</Lead>
    </>
  );
}
