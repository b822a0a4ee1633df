import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { api, dataOf } from "../../api/client";
import type { DrillKind, PracticeResults } from "../../api/types";
import { Button } from "../../controls/Button";
import { Pick } from "../../controls/Pick";
import { usePreferences } from "../../look/preferences";
import { Curve } from "./Curve";
import { DRILLS } from "./kinds";

const List = styled.ol`
  max-width: 860px;
  list-style: none;
  padding: 0;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 250px 84px;
    align-items: center;
    gap: 16px;
    padding: 9px 0;
    border-top: 1px solid ${({ theme }) => theme.line};
  }
  p {
    color: ${({ theme }) => theme.soft};
  }
  @media (max-width: 760px) {
    li {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    svg {
      display: none;
    }
  }
`;

/** Every drill with its results so far, and a set of one's own. */
export function DrillList({
  told,
  onBegin,
  onOwn,
}: {
  told: PracticeResults | undefined;
  onBegin: (kind: DrillKind) => void;
  onOwn: (shotId: string) => void;
}) {
  const results = told?.results ?? [];
  return (
    <>
      <p style={{ maxWidth: 640, marginBottom: 12 }}>
        A simulated camera before a made-up set. Judged is the frame on the screen, against the best that the
        lens can do and the moves of a good hand; never the clock.
      </p>
      <List>
        {DRILLS.map(({ kind, title, words }) => (
          <li key={kind}>
            <div>
              <strong>{title}</strong>
              {told?.next === kind ? " · take this one next" : ""}
              <p>{words}</p>
            </div>
            <div>
              <Curve name={title} results={results.filter((result) => result.kind === kind)} />
            </div>
            <Button
              data-weight={told?.next === kind ? "main" : undefined}
              onPress={() => onBegin(kind)}
              aria-label={`Begin: ${title}`}
            >
              Begin
            </Button>
          </li>
        ))}
        <OwnSet results={results.filter((result) => result.kind === "own")} onBegin={onOwn} />
      </List>
    </>
  );
}

/** Practise on a shot of one's own before its set is built. */
function OwnSet({
  results,
  onBegin,
}: {
  results: PracticeResults["results"];
  onBegin: (shotId: string) => void;
}) {
  const { units } = usePreferences();
  const shots = useQuery({
    queryKey: ["shots", units, "to practise"],
    queryFn: () => dataOf(api.GET("/api/shots", { params: { query: { units, removed: "no" } } })),
  }).data?.shots;
  const [chosen, setChosen] = useState<string | null>(null);
  return (
    <li>
      <div>
        <strong>A set of your own</strong>
        <p>A shot’s points before its own lens, with the plan as the answer: before the real one is built.</p>
        {shots?.length !== 0 ? (
          <Pick
            label="Shot"
            value={chosen}
            options={(shots ?? []).map((shot) => ({ id: shot.shot_id, label: shot.name }))}
            onChange={setChosen}
          />
        ) : (
          <p>There is no shot yet.</p>
        )}
      </div>
      <div>
        <Curve name="A set of your own" results={results} />
      </div>
      <Button
        isDisabled={chosen === null}
        onPress={() => chosen !== null && onBegin(chosen)}
        aria-label="Begin: A set of your own"
      >
        Begin
      </Button>
    </li>
  );
}
