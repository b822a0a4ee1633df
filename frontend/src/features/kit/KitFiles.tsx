import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";
import { Refusal, sentenceOf, Unreachable } from "../../api/client";
import { Button, LinkButton } from "../../controls/Button";

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;

const Said = styled.p`
  flex: 1 1 100%;
  max-width: 560px;
  padding: 8px 12px;
  border: 1px dashed ${({ theme }) => theme.trouble};
  color: ${({ theme }) => theme.trouble} !important;
`;

const LARGEST_FILE = 1_000_000;

/** The whole kit as a file: out as JSON or as a table, in as either. */
export function KitFiles({ revision, onBrought }: { revision: number; onBrought: () => void }) {
  const [trouble, setTrouble] = useState<string | null>(null);
  const bring = async (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    try {
      if (file.size > LARGEST_FILE) {
        throw new Error(
          `“${file.name}” holds ${(file.size / 1e6).toFixed(1)} MB; a kit file holds a few kB. Choose the .json or .csv file of a kit.`,
        );
      }
      await send(await file.arrayBuffer(), revision);
      setTrouble(null);
      onBrought();
    } catch (error) {
      setTrouble(sentenceOf(error));
    }
  };
  return (
    <Row>
      <FileTrigger acceptedFileTypes={[".json", ".csv"]} onSelect={(files) => void bring(files)}>
        <Button>Bring in a file</Button>
      </FileTrigger>
      <LinkButton href="/api/kit/file" download="">
        Save as JSON
      </LinkButton>
      <LinkButton href="/api/kit/table" download="">
        Save as CSV
      </LinkButton>
      {trouble ? <Said role="alert">{trouble}</Said> : null}
    </Row>
  );
}

async function send(content: ArrayBuffer, revision: number) {
  let response: Response;
  try {
    response = await fetch(`/api/kit/from-file?mode=add&base_revision=${revision}`, {
      method: "POST",
      body: content,
    });
  } catch {
    throw new Unreachable();
  }
  if (!response.ok) throw new Refusal((await response.json()) as Refusal["problem"]);
}
