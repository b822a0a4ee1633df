import { useMutation } from "@tanstack/react-query";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";
import { bringFile } from "../../api/bring";
import { sentenceOf } from "../../api/client";
import type { Run } from "../../api/types";
import { Button } from "../../controls/Button";
import { newHex } from "../../look/ids";
import { Lead, Section } from "../../controls/panel";
import type { Running } from "../../shot/useRun";

const Read = styled(Button)`
  margin-bottom: 18px;
`;

/** White balance from a frame of something grey, kept with the run. */
export function GreyFrame({ running, run }: { running: Running; run: Run }) {
  const bring = useMutation({
    mutationFn: async (file: File) => {
      await running.grey(run, (await bringFile(newHex(), file)).folder, file.name);
    },
  });
  return (
    <>
      <Section>White balance</Section>
      <Lead>
        {run.white
          ? `${run.white.words} From ${run.white.file}.`
          : "Photograph something grey where the subject stands, in the light of the run."}
      </Lead>
      {bring.isError ? <Lead role="alert">{sentenceOf(bring.error)}</Lead> : null}
      <FileTrigger onSelect={(files) => files?.[0] && bring.mutate(files[0])}>
        <Read isPending={bring.isPending}>
          {run.white ? "Another frame of grey" : "Read a frame of grey"}
        </Read>
      </FileTrigger>
    </>
  );
}
