import { useState } from "react";
import styled from "styled-components";
import { sentenceOf } from "../../api/client";
import type { Devices, Run } from "../../api/types";
import { Button } from "../../controls/Button";
import { Check as Tick } from "../../controls/Check";
import { Fold } from "../../controls/Fold";
import { Lead, Section } from "../../controls/panel";
import { Segments } from "../../controls/Segments";
import type { Running } from "../../shot/useRun";
import { WHAT_MAY_GO_WRONG } from "./devices";

const Box = styled.div`
  display: grid;
  gap: 10px;
  margin-bottom: 14px;
`;

/** Who moves and who releases: two choices of their own. Simulated devices are the only ones that there are yet. */
export function ByDevices({ running, run }: { running: Running; run: Run }) {
  const [asked, setAsked] = useState<Devices>(run.devices);
  const [open, setOpen] = useState(false);
  const { drive } = running;
  const put = (part: Partial<Devices>) => setAsked({ ...asked, ...part });
  const any = asked.rail !== "hand" || asked.camera !== "hand";
  const changed = asked.rail !== run.devices.rail || asked.camera !== run.devices.camera;
  return (
    <Box>
      <Section>Who moves, who releases</Section>
      <Segments
        label="Who moves"
        value={asked.rail}
        onChange={(rail) => put({ rail })}
        options={[
          { id: "hand", label: "by hand" },
          { id: "simulated", label: run.plan.kind === "ring" ? "simulated ring" : "simulated rail" },
        ]}
      />
      <Segments
        label="Who releases"
        value={asked.camera}
        onChange={(camera) => put({ camera })}
        options={[
          { id: "hand", label: "by hand" },
          { id: "simulated", label: "simulated camera" },
        ]}
      />
      {any ? (
        <Fold title="What may go wrong" isOpen={open} onOpenChange={setOpen}>
          {WHAT_MAY_GO_WRONG.map(({ id, label }) => (
            <Tick
              key={id}
              label={label}
              value={asked.faults.includes(id)}
              onChange={(on) =>
                put({ faults: on ? [...asked.faults, id] : asked.faults.filter((each) => each !== id) })
              }
            />
          ))}
          <Tick
            label="waits as long as real ones"
            value={asked.in_real_time}
            onChange={(in_real_time) => put({ in_real_time })}
          />
          <Tick
            label="writes a raw file beside each JPEG"
            value={asked.raw_too}
            onChange={(raw_too) => put({ raw_too })}
          />
        </Fold>
      ) : null}
      {drive.error ? <Lead role="alert">{sentenceOf(drive.error)}</Lead> : null}
      {any || changed ? (
        <Button
          data-weight={any ? "main" : undefined}
          isPending={drive.isPending}
          onPress={() => drive.mutate({ at: run, devices: asked })}
        >
          {any ? "Let them work" : "All by hand from now on"}
        </Button>
      ) : null}
    </Box>
  );
}
