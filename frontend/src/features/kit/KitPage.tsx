import { useState } from "react";
import styled from "styled-components";
import { sentenceOf } from "../../api/client";
import type { Gear, KeptKit } from "../../api/types";
import { Button } from "../../controls/Button";
import { Link } from "react-aria-components";
import { TopBar, UnderOneBar } from "../../controls/TopBar";
import { useArrival } from "../../controls/useArrival";
import { barLiesOver, pastBar, SaveBar, SaveWord, savingOf } from "../../shot/editing/SaveBar";
import { nameOf, newKitId } from "../../gear/words";
import { emptyGear } from "../../gear/empty";
import { Adders } from "./Adders";
import { KitFiles } from "./KitFiles";
import { KitShelf } from "./KitShelf";
import { NewPiece } from "./NewPiece";
import { NoPiece, OnePiece } from "./OnePiece";
import { useKit, useKitEditing, useShelf } from "../../gear/useKit";
import { useKitKeys } from "./useKitKeys";

const Page = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100vh;
  height: 100dvh;
  min-height: 560px;
`;

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 10px;
  padding: 14px 20px 12px;
  border-bottom: 1px solid ${({ theme }) => theme.line};
  h1 {
    font-size: 22px;
    letter-spacing: -0.01em;
  }
  p {
    color: ${({ theme }) => theme.soft};
  }
  & > div:first-child {
    flex: 1 1 260px;
  }
`;

const Main = styled.main`
  ${barLiesOver}
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
`;

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 380px;
  min-height: 0;
  & > * {
    position: relative;
    overflow: auto;
    padding: 6px 20px calc(30px + ${pastBar});
    scroll-padding-bottom: ${pastBar};
  }
  & > :last-child {
    border-left: 1px solid ${({ theme }) => theme.line};
    padding-top: 14px;
  }
`;

const Empty = styled.div`
  max-width: 420px;
  margin: 14vh auto 0;
  p {
    margin-top: 10px;
    color: ${({ theme }) => theme.soft};
  }
`;

/** The gear on the shelf. */
export function KitPage() {
  const query = useKit();
  useArrival("Kit", query.data ? "kit" : null);
  return (
    <Page>
      <UnderOneBar>
        {query.data ? (
          <OpenKit opened={query.data} />
        ) : (
          <Head>
            <p>{query.isError ? sentenceOf(query.error) : "Opening the kit…"}</p>
          </Head>
        )}
      </UnderOneBar>
    </Page>
  );
}

function OpenKit({ opened }: { opened: KeptKit }) {
  const editing = useKitEditing(opened);
  const said = useKit().data ?? opened;
  const shelf = useShelf().data;
  const [selected, setSelected] = useState<string | null>(null);
  const [begun, setBegun] = useState<Gear | null>(null);
  const { draft: kit, edit } = editing;
  const pieces = kit.pieces;
  const index = pieces.findIndex((piece) => piece.gear.kit_id === selected);
  const piece = pieces[index];
  const setPieces = (next: typeof pieces) => edit((draft) => ({ ...draft, pieces: next }));
  const add = (gear: Gear) => {
    setPieces([...pieces, { carried: true, gear }]);
    setSelected(gear.kit_id ?? null);
  };
  const problemAt = (pointer: string) =>
    editing.problems.find((problem) => problem.field === pointer)?.message ??
    said.findings
      .filter((finding) => finding.severity === "trouble" && finding.field === pointer)
      .map((finding) => [finding.message, finding.remedy].join(" "))[0];
  useKitKeys(editing);
  return (
    <>
      <TopBar title="Kit">
        <SaveWord {...savingOf(editing)} reachable={editing.saveState !== "waiting"} />
      </TopBar>
      <Main>
        <SaveBar editing={editing} reachable={editing.saveState !== "waiting"} />
        <Head>
          <div>
            <h1>Kit</h1>
            <p>
              {pieces.length
                ? `${pieces.length} ${pieces.length === 1 ? "piece" : "pieces"}, ${pieces.filter((each) => each.carried !== false).length} of them on the table today. Shots keep copies: nothing changed here changes a shot.`
                : "Nothing on the shelf yet. Start with generic gear and change its numbers, or bring in a list."}
            </p>
          </div>
          <Adders pieces={pieces} shelf={shelf} onAdd={add} onBegin={(kind) => setBegun(emptyGear(kind))} />
          <KitFiles revision={editing.kept.revision} onBrought={editing.takeTheirs} />
        </Head>
        <Columns>
          {pieces.length === 0 ? (
            <EmptyKit
              isReady={shelf !== undefined}
              onStart={() => shelf && setPieces(shelf.pieces.map(({ gear }) => ({ carried: true, gear })))}
            />
          ) : (
            <div>
              <KitShelf
                pieces={pieces}
                findings={said.findings}
                selected={selected}
                onSelect={(id) => {
                  setBegun(null);
                  setSelected(id);
                }}
                onCarry={(kit_id, carried) =>
                  setPieces(pieces.map((each) => (each.gear.kit_id === kit_id ? { ...each, carried } : each)))
                }
              />
              {kit.measured_rigs.length ? (
                <p style={{ marginTop: 18 }}>
                  {kit.measured_rigs.length === 1 ? "A rig was" : `${kit.measured_rigs.length} rigs were`}{" "}
                  measured with a ruler: see <Link href="/trials">Trials</Link>.
                </p>
              ) : null}
            </div>
          )}
          <section key={begun?.kit_id ?? selected ?? "none"} aria-label="One piece">
            {begun ? (
              <NewPiece
                key={begun.kit_id}
                gear={begun}
                onChange={setBegun}
                onAdd={(gear) => {
                  add(gear);
                  setBegun(null);
                }}
                onLeave={() => setBegun(null)}
              />
            ) : piece ? (
              <OnePiece
                gear={piece.gear}
                at={`/pieces/${index}/gear`}
                findings={said.findings}
                problemAt={problemAt}
                onChange={(gear) =>
                  setPieces(pieces.map((each, place) => (place === index ? { ...each, gear } : each)))
                }
                onPutAway={() => {
                  setPieces(pieces.filter((_, place) => place !== index));
                  setSelected(null);
                }}
                onCopy={() =>
                  add({
                    ...piece.gear,
                    name: `${nameOf(piece.gear)}, copy`.slice(0, 120),
                    kit_id: newKitId(piece.gear.kind),
                  })
                }
              />
            ) : (
              <NoPiece
                isEmpty={pieces.length === 0}
                onFirst={() => setSelected(pieces[0]?.gear.kit_id ?? null)}
              />
            )}
          </section>
        </Columns>
      </Main>
    </>
  );
}

function EmptyKit({ isReady, onStart }: { isReady: boolean; onStart: () => void }) {
  return (
    <section aria-label="Pieces of the kit">
      <Empty>
        <Button data-weight="main" isDisabled={!isReady} onPress={onStart}>
          Start with all generic gear
        </Button>
        <p>
          One of each common kind, with usual numbers; take out what you do not have, correct what differs.
        </p>
      </Empty>
    </section>
  );
}
