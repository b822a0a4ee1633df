import { useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import type { LogEntry } from "../../api/types";
import { Button, LinkButton } from "../../controls/Button";
import { usePreferences } from "../../look/preferences";
import type { LogHeld } from "../../shot/useLog";
import { NoteForm } from "./NoteForm";
import { unbroken } from "../../units/format";
import { doneWords, outWords, setWords } from "./words";

const Box = styled.article`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 220px;
  gap: 6px 20px;
  padding: 16px 0 18px;
  border-top: 1px solid ${({ theme }) => theme.line};
  max-width: 900px;
  break-inside: avoid;
  overflow-wrap: anywhere;
  h2 {
    font-size: 18px;
  }
  img {
    width: 220px;
    border: 1px solid ${({ theme }) => theme.line};
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const Soft = styled.p`
  color: ${({ theme }) => theme.soft};
`;

const Line = styled.p`
  margin: 8px 0 2px;
  font-size: 17px;
  font-weight: 600;
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
  @media print {
    display: none;
  }
`;

interface EntryProps {
  entry: LogEntry;
  held: LogHeld;
  compared: boolean;
  onCompare?: ((on: boolean) => void) | undefined;
}

/** One entry of the notebook: what was set, what came out, what it cost, and one line for next time. */
export function Entry({ entry, held, compared, onCompare }: EntryProps) {
  const { units } = usePreferences();
  const [writing, setWriting] = useState(false);
  const [pictured, setPictured] = useState(entry.done.folder !== null);
  const navigate = useNavigate();
  const { note } = entry;
  const day = new Date(entry.made_at).toLocaleDateString(undefined, { dateStyle: "long" });
  return (
    <Box aria-label={`${entry.set.shot_name}, ${day}`}>
      <div>
        <h2>{entry.set.shot_name}</h2>
        <Soft>
          {day} · {entry.set.rig.join(" + ")}
        </Soft>
        {note.next_time ? <Line>“{note.next_time}”</Line> : null}
        <p>{unbroken(setWords(entry, units))}</p>
        <p>{unbroken(doneWords(entry))}</p>
        <p>{unbroken(outWords(entry))}</p>
        {note.good || note.wrong.length ? (
          <Soft>{[note.good ?? "", ...note.wrong].filter(Boolean).join(" · ")}</Soft>
        ) : null}
        <Row>
          <Button onPress={() => setWriting(!writing)}>{writing ? "Done writing" : "Write in it"}</Button>
          <Button
            isPending={held.asThen.isPending}
            onPress={() =>
              held.asThen.mutate(entry, {
                onSuccess: (made) => void navigate(`/shots/${made.shot_id}/subject`),
              })
            }
          >
            As then
          </Button>
          <LinkButton href={`/api/log/${entry.entry_id}/folder`} download>
            As a folder
          </LinkButton>
          {onCompare ? (
            <Button onPress={() => onCompare(!compared)}>{compared ? "Not beside" : "Put beside"}</Button>
          ) : null}
        </Row>
        {writing ? <NoteForm entry={entry} held={held} /> : null}
      </div>
      {pictured ? (
        <img
          src={`/api/log/${entry.entry_id}/picture`}
          alt={`What came of ${entry.set.shot_name}`}
          onError={() => setPictured(false)}
        />
      ) : null}
    </Box>
  );
}
