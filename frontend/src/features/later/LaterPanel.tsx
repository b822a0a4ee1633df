import type { StationId } from "../../shot/stations";
import { Heading, Lead } from "../../controls/panel";

const WORDS: Partial<Record<StationId, [string, string]>> = {
  check: [
    "Check is not there yet",
    "Here the program will look at the frames before the set is taken down: is every part sharp in one of them, did anything move? Until then: look at the first, the middle and the last frame at full size.",
  ],
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
