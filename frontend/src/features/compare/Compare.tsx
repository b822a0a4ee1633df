import { useState } from "react";
import styled from "styled-components";
import { Button } from "../../controls/Button";
import { Segments } from "../../controls/Segments";
import { useBench } from "../../shot/ShotContext";
import { BesidePick } from "./BesidePick";
import { Column } from "./Column";
import { OtherColumn } from "./OtherColumn";
import type { Looked, Zoom } from "./usePreview";

const Area = styled.section`
  position: relative;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 10px;
  padding: 10px 16px 8px 20px;
  min-width: 0;
  min-height: 0;
  overflow: auto;
`;

const Head = styled.div`
  display: flex;
  gap: 16px;
  align-items: end;
  justify-content: space-between;
  p {
    color: ${({ theme }) => theme.soft};
    max-width: 460px;
    line-height: 1.35;
  }
`;

const Columns = styled.div`
  display: grid;
  gap: 16px;
  align-content: start;
`;

const ZOOMS = [
  { id: "frame", label: "whole frame" },
  { id: "pixels", label: "100 %" },
  { id: "double", label: "200 %" },
] as const;

/** The pinned ways side by side: what each looks like, and what it costs. */
export function Compare({ shotId, onBack }: { shotId: string; onBack: () => void }) {
  const { shot, drawn, plan } = useBench();
  const [looked, setLooked] = useState<Looked>({ zoom: "frame", fromLeft: 0.5, fromTop: 0.5 });
  const ways = shot.pinned.flatMap((id) => plan?.ways.find((way) => way.id === id) ?? []);
  const columns = ways.length + shot.beside.length;
  const look = (fromLeft: number, fromTop: number) =>
    setLooked((last) => ({ zoom: last.zoom === "frame" ? "pixels" : last.zoom, fromLeft, fromTop }));
  return (
    <Area aria-label="Ways side by side">
      <Head>
        <p>
          A made-up surface laid through your points, seen with each way&apos;s own blur and diffraction.{" "}
          {looked.zoom === "frame" ? "Click where to look closer." : "Pixels of the final picture."}
        </p>
        <BesidePick shotId={shotId} />
        <div style={{ minWidth: 300 }}>
          <Segments
            label="Shown at"
            value={looked.zoom}
            options={ZOOMS}
            onChange={(zoom: Zoom) => setLooked((last) => ({ ...last, zoom }))}
          />
        </div>
      </Head>
      {plan && columns ? (
        <Columns style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}>
          {ways.map((way) => (
            <Column key={way.id} shot={drawn} plan={plan} way={way} looked={looked} onLook={look} />
          ))}
          {shot.beside.map((other) => (
            <OtherColumn key={other.shot_id} other={other} looked={looked} onLook={look} />
          ))}
        </Columns>
      ) : (
        <div>
          <p>Nothing is pinned. Choose a way on the bench and pin it; up to four stand here.</p>
          <Button onPress={onBack}>Back to the bench</Button>
        </div>
      )}
    </Area>
  );
}
