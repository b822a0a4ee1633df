import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import styled from "styled-components";
import { api, dataOf, sentenceOf } from "../../api/client";
import type { Run } from "../../api/types";
import { Button } from "../../controls/Button";
import { Lead, Section } from "../../controls/panel";
import { TextBox } from "../../controls/TextBox";
import type { Running } from "../../shot/useRun";

const EVERY_MS = 1000;

const Box = styled.div`
  display: grid;
  overflow-wrap: anywhere;
  gap: 8px;
  margin-bottom: 14px;
`;

/** Where the frames come from: a folder in which the camera's pictures arrive, or nowhere. */
export function FromCamera({ running }: { running: Running }) {
  const { run, watch } = running;
  const [folder, setFolder] = useState("");
  if (!run) return null;
  if (run.folder !== null && run.folder !== "") return <Arriving running={running} run={run} />;
  return (
    <Box>
      <Section>Frames are counted by hand</Section>
      <TextBox
        label="Or: the folder that the camera writes to"
        value={folder}
        onChange={setFolder}
        problem={watch.error ? sentenceOf(watch.error) : undefined}
      />
      <Button
        onPress={() => watch.mutate({ at: run, folder })}
        isPending={watch.isPending}
        isDisabled={!folder.trim()}
      >
        Count what arrives there
      </Button>
    </Box>
  );
}

/** One picture more is the next frame; several at once, and one in doubt, are asked about, never guessed. */
function Arriving({ running, run }: { running: Running; run: Run }) {
  const { tell, busy } = running;
  const next = run.next_frame;
  const look = useQuery({
    queryKey: ["arrived", run.run_id, run.events],
    enabled: run.state === "running" && next !== null,
    refetchInterval: EVERY_MS,
    queryFn: () =>
      dataOf(api.GET("/api/runs/{run_id}/arrived", { params: { path: { run_id: run.run_id } } })),
  });
  const files = look.data?.files ?? [];
  const whole = files.filter((file) => file.whole);
  const only = files.length === 1 && !whole[0]?.doubt ? whole[0] : undefined;
  const asked = next !== null && (whole.length > 1 || whole.some((file) => file.doubt));
  useEffect(() => {
    if (only && next !== null && !busy) tell("taken", next, { file: only.name });
    // Counted once: the press changes `run.events`, and with it the question.
  }, [only?.name, next, busy]); // eslint-disable-line react-hooks/exhaustive-deps
  return (
    <Box aria-live="polite">
      <Section>Frames arrive in {run.folder}</Section>
      {look.data?.trouble ? <Lead role="alert">{look.data.trouble}</Lead> : null}
      {files.map((file) => (file.said ? <Lead key={file.name}>{`${file.name}: ${file.said}`}</Lead> : null))}
      {asked ? (
        <>
          <Lead>
            {whole.length > 1
              ? `${whole.length} pictures came since the last frame. Which is frame ${next + 1}? Those before it are passed over.`
              : `Is it frame ${next + 1}?`}
          </Lead>
          {whole.slice(0, 4).map((file, index) => (
            <Button
              key={file.name}
              isPending={busy}
              onPress={() =>
                tell("taken", next, {
                  file: file.name,
                  passed: whole.slice(0, index).map((earlier) => earlier.name),
                })
              }
            >
              {file.name}
            </Button>
          ))}
          <Button
            data-weight="quiet"
            isPending={busy}
            onPress={() => tell("passed", null, { passed: whole.map((file) => file.name) })}
          >
            {whole.length > 1 ? "None of them" : "It is none of this run"}
          </Button>
        </>
      ) : null}
    </Box>
  );
}
