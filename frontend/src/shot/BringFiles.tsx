import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { DropZone, FileTrigger } from "react-aria-components";
import styled from "styled-components";
import { bringFile } from "../api/bring";
import type { Brought } from "../api/types";
import { sentenceOf } from "../api/client";
import { Button } from "../controls/Button";
import { newHex } from "../look/ids";

const Zone = styled(DropZone)`
  display: grid;
  gap: 6px;
  padding: 10px 12px;
  border: 1px dashed ${({ theme }) => theme.line};
  &[data-drop-target] {
    border-color: ${({ theme }) => theme.strong};
    background: ${({ theme }) => theme.raised};
  }
  p {
    font-size: 13px;
    color: ${({ theme }) => theme.soft};
  }
`;

/** Frames chosen or dropped on the page: taken in one after the other; then the folder that they are in. */
export function BringFiles({ onBrought }: { onBrought: (folder: string) => void }) {
  const [done, setDone] = useState<{ taken: number; of: number } | null>(null);
  const bring = useMutation({
    mutationFn: async (files: readonly File[]) => {
      const into = newHex();
      let brought: Brought | null = null;
      for (const [index, file] of files.entries()) {
        setDone({ taken: index, of: files.length });
        brought = await bringFile(into, file);
      }
      setDone({ taken: files.length, of: files.length });
      return brought;
    },
    onSuccess: (brought) => brought && onBrought(brought.folder),
  });
  const take = (files: readonly File[]) => {
    if (files.length) bring.mutate(files);
  };
  return (
    <Zone
      aria-label="Frames dropped here are taken in"
      onDrop={(event) => {
        const dropped = event.items.flatMap((item) => (item.kind === "file" ? [item.getFile()] : []));
        void Promise.all(dropped).then(take);
      }}
    >
      <FileTrigger allowsMultiple onSelect={(files) => take(files ? [...files] : [])}>
        <Button isPending={bring.isPending}>Choose the frames</Button>
      </FileTrigger>
      <p role="status">
        {bring.isPending && done
          ? `${done.taken} of ${done.of} taken in`
          : bring.isSuccess && done
            ? `${done.of} frames were taken in: their folder is named above. It goes ${bring.data?.kept_days} days after the last look at it.`
            : "or drop them here; they are copied, and stay as they are."}
      </p>
      {bring.isError ? <p role="alert">{sentenceOf(bring.error)}</p> : null}
    </Zone>
  );
}
