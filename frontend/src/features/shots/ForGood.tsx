import { useMutation, useQueryClient } from "@tanstack/react-query";
import styled from "styled-components";
import { api, dataOf, sentenceOf } from "../../api/client";
import { Button } from "../../controls/Button";

const Box = styled.section`
  display: grid;
  gap: 8px;
  justify-items: start;
  margin-top: 20px;
  p {
    max-width: 620px;
  }
  div {
    display: flex;
    gap: 8px;
  }
`;

type What = "put_away" | "versions";

const WORDS = {
  put_away: {
    ask: "Empty this list for good …",
    nothing: "Nothing is put away.",
    would: (documents: number, revisions: number) =>
      `${many(documents, "shot")} with ${many(revisions, "version")} would go, and cannot be brought back. Runs and entries of the notebook stay as they were written.`,
    go: "Empty it for good",
    gone: (documents: number) => `${many(documents, "shot")} went for good.`,
  },
  versions: {
    ask: "Tidy old versions …",
    nothing: "No shot has more than fifty versions: there is nothing to tidy.",
    would: (documents: number, revisions: number) =>
      `${many(revisions, "version")} of ${many(documents, "document")} would go: those past the last fifty. What a run or an entry was made from stays.`,
    go: "Let them go",
    gone: (_: number, revisions: number) => `${many(revisions, "version")} went.`,
  },
};

function many(count: number, noun: string): string {
  return `${count} ${noun}${count === 1 ? "" : "s"}`;
}

/** What can be let go for good, with a second look before it. */
export function ForGood() {
  return (
    <>
      <OneOf what="put_away" />
      <OneOf what="versions" />
    </>
  );
}

function OneOf({ what }: { what: What }) {
  const queries = useQueryClient();
  const words = WORDS[what];
  const tidy = useMutation({
    mutationFn: (look: boolean) => dataOf(api.POST("/api/shots/tidy", { body: { what, look, keep: 50 } })),
    onSuccess: ({ gone }) => gone && void queries.invalidateQueries({ queryKey: ["shots"] }),
  });
  const found = tidy.data;
  return (
    <Box>
      {found && !found.gone && found.revisions ? (
        <>
          <p role="status">{words.would(found.documents, found.revisions)}</p>
          <div>
            <Button data-weight="main" isPending={tidy.isPending} onPress={() => tidy.mutate(false)}>
              {words.go}
            </Button>
            <Button onPress={() => tidy.reset()}>Leave it as it is</Button>
          </div>
        </>
      ) : (
        <>
          <Button isPending={tidy.isPending} onPress={() => tidy.mutate(true)}>
            {words.ask}
          </Button>
          {tidy.isError ? <p role="alert">{sentenceOf(tidy.error)}</p> : null}
          {found ? (
            <p role="status">{found.gone ? words.gone(found.documents, found.revisions) : words.nothing}</p>
          ) : null}
        </>
      )}
    </Box>
  );
}
