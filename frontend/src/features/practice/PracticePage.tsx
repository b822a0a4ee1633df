import { useQuery } from "@tanstack/react-query";
import { useSearchParams } from "react-router";
import styled from "styled-components";
import { api, dataOf } from "../../api/client";
import type { DrillKind } from "../../api/types";
import { Button } from "../../controls/Button";
import { TopBar } from "../../controls/TopBar";
import { useArrival } from "../../controls/useArrival";
import { DrillList } from "./DrillList";
import { DRILLS } from "./kinds";
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

const OWN = "A set of your own";
const fresh = () => 1 + Math.floor(Math.random() * 1e6);

/** Learn to lay the plane by hand, on a set that does not melt. */
export function PracticePage() {
  // The drill stands in the address: the back button leaves it, and it can be shown to somebody else.
  const [address, setAddress] = useSearchParams();
  const drill = DRILLS.find((each) => each.kind === address.get("drill"));
  const shotId = address.get("shot");
  const seed = Math.max(Math.floor(Number(address.get("seed") ?? 1)) || 1, 1);
  const begin = (kind: DrillKind) => setAddress({ drill: kind, seed: String(fresh()) });
  const beginOwn = (shot: string) => setAddress({ shot, seed: String(fresh()) });
  const told = useQuery({ queryKey: ["practice"], queryFn: () => dataOf(api.GET("/api/practice/results")) });
  const title = shotId ? OWN : drill?.title;
  useArrival(title ?? "Practice", title ?? "drills");
  return (
    <Page>
      <TopBar title={title ?? "Practice"}>
        {title ? <Button onPress={() => setAddress({})}>All drills</Button> : null}
      </TopBar>
      <Main>
        {shotId ? (
          <Play
            key={`${shotId}-${seed}`}
            kind="own"
            shotId={shotId}
            seed={seed}
            title={OWN}
            onAgain={() => beginOwn(shotId)}
          />
        ) : drill ? (
          <Drilled
            key={`${drill.kind}-${seed}`}
            kind={drill.kind}
            seed={seed}
            title={drill.title}
            onAgain={() => begin(drill.kind)}
          />
        ) : (
          <DrillList told={told.data} onBegin={begin} onOwn={beginOwn} />
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
