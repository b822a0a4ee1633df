import { useMutation, useQuery } from "@tanstack/react-query";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";
import { api, dataOf, Refusal, sentenceOf, Unreachable } from "../../api/client";
import type { RulerAnswer, Shot } from "../../api/types";
import { Button } from "../../controls/Button";

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-bottom: 12px;
`;

const Said = styled.p`
  margin-bottom: 12px;
  color: ${({ theme }) => theme.soft};
  &[data-trouble] {
    padding: 8px 12px;
    border: 1px dashed ${({ theme }) => theme.trouble};
    color: ${({ theme }) => theme.trouble};
  }
`;

const LARGEST_FILE = 150_000_000;

/** Choosing the photograph: sent to the program on this machine, looked at, and not kept. */
export function Picking({ shot, onFound }: { shot: Shot; onFound: (answer: RulerAnswer) => void }) {
  const demo = useQuery({
    queryKey: ["alive"],
    queryFn: () => dataOf(api.GET("/api/alive")),
    staleTime: Infinity,
  }).data?.demo;
  const look = useMutation({
    mutationFn: async (source: File | "made-up" | undefined) => {
      if (!source) throw new Error("No file was chosen.");
      if (source !== "made-up" && source.size > LARGEST_FILE) {
        throw new Error(
          `“${source.name}” holds ${(source.size / 1e6).toFixed(0)} MB; up to ${LARGEST_FILE / 1e6} MB can be looked at. Save it as JPEG.`,
        );
      }
      return find(source === "made-up" ? await madeUp(shot) : source);
    },
    onSuccess: onFound,
  });
  return (
    <>
      <Row>
        <FileTrigger
          acceptedFileTypes={["image/jpeg", "image/png", "image/tiff"]}
          onSelect={(files) => look.mutate(files?.[0])}
        >
          <Button data-weight="main" isPending={look.isPending}>
            Choose the photograph
          </Button>
        </FileTrigger>
        {demo ? (
          <Button isPending={look.isPending} onPress={() => look.mutate("made-up")}>
            Take a made-up one
          </Button>
        ) : null}
      </Row>
      {look.isPending ? <Said role="status">Looking for ticks…</Said> : null}
      {look.isError ? (
        <Said role="alert" data-trouble="">
          {sentenceOf(look.error)}
        </Said>
      ) : null}
    </>
  );
}

async function ask(path: string, body: BodyInit, headers: Record<string, string> = {}): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, { method: "POST", body, headers });
  } catch {
    throw new Unreachable();
  }
  if (!response.ok) throw new Refusal((await response.json()) as Refusal["problem"]);
  return response;
}

async function find(picture: Blob): Promise<RulerAnswer> {
  return (await (await ask("/api/ruler/find", picture)).json()) as RulerAnswer;
}

async function madeUp(shot: Shot): Promise<Blob> {
  const answer = await ask("/api/ruler/practice", JSON.stringify(shot), {
    "Content-Type": "application/json",
  });
  return answer.blob();
}
