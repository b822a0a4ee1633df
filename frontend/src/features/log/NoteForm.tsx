import { useState } from "react";
import styled from "styled-components";
import { sentenceOf } from "../../api/client";
import type { LogEntry } from "../../api/types";
import { Button } from "../../controls/Button";
import { Check as Tick } from "../../controls/Check";
import { Segments } from "../../controls/Segments";
import { TextBox } from "../../controls/TextBox";
import type { LogHeld } from "../../shot/useLog";
import { useNote } from "./useNote";

const MOST_OFFERED = 8;

const Form = styled.div`
  display: grid;
  gap: 10px;
`;

const Words = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(130px, 1fr));
`;

const GOOD = [
  { id: "lost", label: "lost" },
  { id: "usable", label: "usable" },
  { id: "good", label: "good" },
  { id: "best yet", label: "best yet" },
] as const;

/** What the photographer adds: how good, what went wrong, one line for next time. Kept as it is written. */
export function NoteForm({ entry, held }: { entry: LogEntry; held: LogHeld }) {
  const [own, setOwn] = useState("");
  const { note } = held;
  const [written, put] = useNote(entry, held);
  const mark = (word: string, on: boolean) =>
    put({ wrong: on ? [...written.wrong, word] : written.wrong.filter((each) => each !== word) });
  const offered = [...written.wrong, ...held.words.filter((word) => !written.wrong.includes(word))];
  return (
    <Form>
      <Segments
        label="How good it was"
        value={written.good ?? ""}
        onChange={(good) => put({ good: good === "" ? null : good })}
        options={GOOD as readonly { id: (typeof GOOD)[number]["id"] | ""; label: string }[]}
      />
      <Words role="group" aria-label="What went wrong">
        {offered.slice(0, Math.max(MOST_OFFERED, written.wrong.length)).map((word) => (
          <Tick
            key={word}
            label={word}
            value={written.wrong.includes(word)}
            onChange={(on) => mark(word, on)}
          />
        ))}
      </Words>
      <TextBox label="Something else went wrong" value={own} onChange={setOwn} maxLength={60} />
      {own.trim() ? (
        <Button
          onPress={() => {
            mark(own.trim(), true);
            setOwn("");
          }}
        >
          Note “{own.trim()}”
        </Button>
      ) : null}
      <TextBox
        label="Next time"
        value={written.next_time}
        onChange={(next_time) => put({ next_time })}
        maxLength={300}
        lines
      />
      {note.error ? <p role="alert">{sentenceOf(note.error)}</p> : null}
    </Form>
  );
}
