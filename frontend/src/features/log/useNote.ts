import { useEffect, useRef, useState } from "react";
import type { LogEntry, LogNote } from "../../api/types";
import type { LogHeld } from "../../shot/useLog";

/** A note as it is written: shown at once, saved one save at a time, so that two quick marks never race each other. */
export function useNote(
  entry: LogEntry,
  held: LogHeld,
): readonly [LogNote, (part: Partial<LogNote>) => void] {
  const [draft, setDraft] = useState(entry.note);
  const latest = useRef(entry.note);
  const number = useRef(entry.note_number);
  const waiting = useRef<LogNote | null>(null);
  const saving = useRef(false);
  const refused = useRef(false);

  // What another window wrote, where nothing of ours waits to be saved.
  useEffect(() => {
    if (saving.current || entry.note_number <= number.current) return;
    number.current = entry.note_number;
    if (refused.current) {
      // Ours was refused because of this one: it stays in the form, and the next mark saves it over the other.
      refused.current = false;
      return;
    }
    latest.current = entry.note;
    setDraft(entry.note);
  }, [entry]);

  const save = async () => {
    if (saving.current) return;
    saving.current = true;
    while (waiting.current) {
      const note = waiting.current;
      waiting.current = null;
      try {
        const kept = await held.note.mutateAsync({ entry: { ...entry, note_number: number.current }, note });
        number.current = kept.note_number;
      } catch {
        refused.current = true;
        break; // said by the form; what was written stays in it
      }
    }
    saving.current = false;
  };
  const put = (part: Partial<LogNote>) => {
    latest.current = { ...latest.current, ...part };
    waiting.current = latest.current;
    setDraft(latest.current);
    void save();
  };
  return [draft, put];
}
