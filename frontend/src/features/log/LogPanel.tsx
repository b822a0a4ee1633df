import { Heading, Lead } from "../../controls/panel";
import { LinkButton } from "../../controls/Button";
import { useLog } from "../../shot/useLog";
import { NoteForm } from "./NoteForm";

/** Station 9: what to keep of the last run of this shot. */
export function LogPanel({ shotId }: { shotId: string }) {
  const held = useLog({ shot: shotId });
  const last = held.entries[0];
  if (held.loading) return null;
  return (
    <>
      <Heading>{last ? "The last run" : "Nothing to log yet"}</Heading>
      <Lead>
        {last
          ? "What was set and what came out is written by itself. Add what only you know."
          : "Every run of this shot writes itself in here, with what was set and what came out."}
      </Lead>
      {last ? <NoteForm key={last.entry_id} entry={last} held={held} /> : null}
      <p style={{ marginTop: 16 }}>
        <LinkButton href="/notebook">The whole notebook</LinkButton>
      </p>
    </>
  );
}
