import { useState } from "react";
import { useParams } from "react-router";
import styled from "styled-components";
import { sentenceOf } from "../../api/client";
import type { KeptShot, RulerAnswer } from "../../api/types";
import { LinkButton } from "../../controls/Button";
import { Heading, Lead } from "../../controls/panel";
import { TopBar, UnderOneBar } from "../../controls/TopBar";
import { useArrival } from "../../controls/useArrival";
import { useShot, useShotEditing } from "../../shot/useShot";
import { barLiesOver, pastBar, SaveBar, SaveWord, savingOf } from "../../shot/editing/SaveBar";
import { Frame } from "./Frame";
import { Picking } from "./Picking";
import { SizePanel } from "./SizePanel";
import { TwoTubes } from "./TwoTubes";
import type { Point } from "../../drawing/picture";

const Page = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100vh;
  height: 100dvh;
  min-height: 560px;
`;

const Columns = styled.main`
  ${barLiesOver}
  display: grid;
  grid-template-columns: 330px minmax(0, 1fr);
  min-height: 0;
`;

const Panel = styled.section`
  position: relative;
  padding: 14px 16px calc(24px + ${pastBar});
  scroll-padding-bottom: ${pastBar};
  overflow: auto;
  border-right: 1px solid ${({ theme }) => theme.line};
`;

const Back = styled.div`
  margin-top: 18px;
`;

/** A photograph of a ruler through this shot's rig: the true size on the sensor. */
export function RulerPage() {
  const { shotId = "" } = useParams();
  const query = useShot(shotId);
  return (
    <Page>
      <UnderOneBar>
        {query.data ? (
          <Open key={shotId} opened={query.data} />
        ) : (
          <Panel>
            <Lead>{query.isError ? sentenceOf(query.error) : "Opening the shot…"}</Lead>
          </Panel>
        )}
      </UnderOneBar>
    </Page>
  );
}

function Open({ opened }: { opened: KeptShot }) {
  const editing = useShotEditing(opened);
  const [found, setFound] = useState<RulerAnswer | null>(null);
  const [points, setPoints] = useState<Point[]>([]);
  const [byHand, setByHand] = useState(false);
  useArrival(`Ruler · ${editing.draft.name}`);
  const reachable = editing.saveState !== "waiting";
  return (
    <>
      <TopBar title={`Ruler · ${editing.draft.name}`}>
        <SaveWord {...savingOf(editing)} reachable={reachable} />
      </TopBar>
      <Columns>
        <SaveBar editing={editing} reachable={reachable} />
        <Panel aria-label="Measure with a ruler">
          <Heading>How large is it really?</Heading>
          <Lead>
            Photograph a ruler through this rig, square to the camera and sharp, and send the whole frame.
            What is measured then takes the place of the model.
          </Lead>
          <Picking
            shot={editing.draft}
            onFound={(answer) => {
              setFound(answer);
              setPoints([]);
              setByHand(answer.spacing_px === null);
            }}
          />
          {found ? (
            <SizePanel
              editing={editing}
              found={found}
              byHand={byHand}
              onByHand={setByHand}
              points={points}
              onPoints={setPoints}
            />
          ) : null}
          <TwoTubes editing={editing} />
          <Back>
            <LinkButton href={`/shots/${editing.kept.id}/reach`}>Back to the shot</LinkButton>
          </Back>
        </Panel>
        <Frame found={found} byHand={byHand} points={points} onPoints={setPoints} />
      </Columns>
    </>
  );
}
