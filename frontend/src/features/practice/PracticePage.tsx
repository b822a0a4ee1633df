import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { useSearchParams } from "react-router";
import styled from "styled-components";
import { api, dataOf } from "../../api/client";
import type { DrillKind } from "../../api/types";
import { Button } from "../../controls/Button";
import { TopBar } from "../../controls/TopBar";
import { Curve } from "./Curve";
import { Play } from "./Play";
import { Reading } from "./Reading";
import { Rock } from "./Rock";

const Page = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100vh;
  height: 100dvh;
  min-height: 560px;
`;

const Main = styled.main`
  min-height: 0;
  overflow: auto;
  padding: 14px 20px;
`;

const List = styled.ol`
  max-width: 860px;
  list-style: none;
  padding: 0;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 250px auto;
    align-items: center;
    gap: 16px;
    padding: 12px 0;
    border-top: 1px solid ${({ theme }) => theme.line};
  }
  p {
    color: ${({ theme }) => theme.soft};
  }
  @media (max-width: 900px) {
    li {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    svg {
      display: none;
    }
  }
`;

const DRILLS: readonly { kind: DrillKind; title: string; words: string }[] = [
  {
    kind: "magnifier",
    title: "Read the magnifier",
    words: "Which of five is the sharpest, closer together from time to time.",
  },
  {
    kind: "stop",
    title: "Choose the stop",
    words: "How far to stop down before light itself takes more than it gives.",
  },
  {
    kind: "ends",
    title: "First and last frame",
    words: "Where a stack begins and ends: too late is lost, too early is only time.",
  },
  {
    kind: "rock",
    title: "Focus by rocking",
    words: "The press comes late: lead it.",
  },
  {
    kind: "tilt",
    title: "Tilt on one axis",
    words: "Focus on the near edge, tilt until the far one is sharp, focus near again.",
  },
  {
    kind: "tilt_and_turn",
    title: "Tilt and turn",
    words: "The page lies askew: first which way, then how far.",
  },
  {
    kind: "limits",
    title: "A lens with limits",
    words: "Too little tilt, about the wrong point: what can be had all the same.",
  },
];

const fresh = () => 1 + Math.floor(Math.random() * 1e6);

/** Learn to lay the plane by hand, on a set that does not melt. */
export function PracticePage() {
  // The drill stands in the address: the back button leaves it, and it can be shown to somebody else.
  const [address, setAddress] = useSearchParams();
  const drill = DRILLS.find((each) => each.kind === address.get("drill"));
  const seed = Math.max(Math.floor(Number(address.get("seed") ?? 1)) || 1, 1);
  const begin = (kind: DrillKind) => setAddress({ drill: kind, seed: String(fresh()) });
  const told = useQuery({ queryKey: ["practice"], queryFn: () => dataOf(api.GET("/api/practice/results")) });
  useEffect(() => {
    document.title = "Practice · Just Plane";
  }, []);
  const results = told.data?.results ?? [];
  return (
    <Page>
      <TopBar title={drill ? drill.title : "Practice"}>
        {drill ? <Button onPress={() => setAddress({})}>All drills</Button> : null}
      </TopBar>
      <Main>
        {drill ? (
          <Drilled
            key={`${drill.kind}-${seed}`}
            kind={drill.kind}
            seed={seed}
            title={drill.title}
            onAgain={() => begin(drill.kind)}
          />
        ) : (
          <>
            <p style={{ maxWidth: 640, marginBottom: 14 }}>
              A simulated camera before a made-up page. Judged is the frame on the screen, against the best
              that the lens can do and the moves of a good hand; never the clock. Reading the magnifier, and
              focusing by rocking, are not there yet.
            </p>
            <List>
              {DRILLS.map(({ kind, title, words }) => (
                <li key={kind}>
                  <div>
                    <strong>{title}</strong>
                    {told.data?.next === kind ? " · take this one next" : ""}
                    <p>{words}</p>
                  </div>
                  <div>
                    <Curve name={title} results={results.filter((result) => result.kind === kind)} />
                  </div>
                  <Button
                    data-weight={told.data?.next === kind ? "main" : undefined}
                    onPress={() => begin(kind)}
                    aria-label={`Begin: ${title}`}
                  >
                    Begin
                  </Button>
                </li>
              ))}
            </List>
          </>
        )}
      </Main>
    </Page>
  );
}

function Drilled({ kind, ...rest }: { kind: DrillKind; seed: number; title: string; onAgain: () => void }) {
  if (kind === "magnifier") return <Reading {...rest} />;
  if (kind === "rock") return <Rock {...rest} />;
  return <Play kind={kind} {...rest} />;
}
