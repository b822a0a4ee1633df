import { useState } from "react";
import type { Run } from "../../api/types";
import { LinkButton } from "../../controls/Button";
import { Fold } from "../../controls/Fold";
import { Lead } from "../../controls/panel";
import { Segments } from "../../controls/Segments";

type Wait = "P_seconds" | "P_milliseconds" | "S_seconds";
type Contact = "M8" | "M3" | "M42" | "hand";

/** The run as G-code: how the controller counts a wait is asked, since a wrong guess is a thousand times off. */
export function AsCode({ run }: { run: Run }) {
  const [open, setOpen] = useState(false);
  const [wait, setWait] = useState<Wait>("P_seconds");
  const [contact, setContact] = useState<Contact>("M8");
  const address = `/api/runs/${run.run_id}/code?wait=${wait}&contact=${contact}`;
  return (
    <Fold title="For a rail that takes G-code" isOpen={open} onOpenChange={setOpen}>
      <Lead>
        Controllers count a wait differently, and a wrong guess is a thousand times off. Try the three lines
        first: they should take 5 s.
      </Lead>
      <Segments
        label="A wait is written as"
        value={wait}
        onChange={setWait}
        options={[
          { id: "P_seconds", label: "P, seconds" },
          { id: "P_milliseconds", label: "P, ms" },
          { id: "S_seconds", label: "S, seconds" },
        ]}
      />
      <Segments
        label="The camera’s contact is"
        value={contact}
        onChange={setContact}
        options={[
          { id: "M8", label: "M8, M9" },
          { id: "M3", label: "M3, M5" },
          { id: "M42", label: "M42" },
          { id: "hand", label: "a hand" },
        ]}
      />
      <p>
        <LinkButton href={`${address}&trial=yes`} download="">
          Three lines to try
        </LinkButton>{" "}
        <LinkButton href={address} download="">
          The run as G-code
        </LinkButton>
      </p>
    </Fold>
  );
}
