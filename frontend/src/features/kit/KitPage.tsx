import { useEffect, useState } from "react";
import styled from "styled-components";
import { sentenceOf } from "../../api/client";
import type { Finding, Gear, KeptKit, Kit } from "../../api/types";
import { Button } from "../../controls/Button";
import { Pick } from "../../controls/Pick";
import { TopBar } from "../../controls/TopBar";
import { SaveBar, SaveWord } from "../../shot/editing/SaveBar";
import { GearForm } from "../../gear/GearForm";
import { KINDS, nameOf, newKitId, wordsOf, type Kind } from "../../gear/words";
import { KitFiles } from "./KitFiles";
import { KitShelf } from "./KitShelf";
import { MeasuredRigs } from "./MeasuredRigs";
import { PutAway } from "./PutAway";
import { useKit, useKitEditing, useShelf } from "../../gear/useKit";
import { useKitKeys } from "./useKitKeys";

const Page = styled.div`
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
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

const Adder = styled.div`
  width: 210px;
`;

const Main = styled.main`
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
    padding: 6px 20px 30px;
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

const Piece = styled.div`
  h2 {
    font-size: 16.5px;
    font-weight: 680;
    margin-bottom: 2px;
  }
  p {
    color: ${({ theme }) => theme.soft};
    margin-bottom: 12px;
  }
  p[data-trouble] {
    color: ${({ theme }) => theme.trouble};
  }
`;

/** The gear on the shelf. */
export function KitPage() {
  const query = useKit();
  useEffect(() => {
    document.title = "Kit · Just Plane";
  }, []);
  if (query.data) return <OpenKit opened={query.data} />;
  return (
    <>
      <TopBar title="Kit" />
      <Head>
        <p>{query.isError ? sentenceOf(query.error) : "Opening the kit…"}</p>
      </Head>
    </>
  );
}

function OpenKit({ opened }: { opened: KeptKit }) {
  const editing = useKitEditing(opened);
  const said = useKit().data ?? opened;
  const shelf = useShelf().data;
  const [selected, setSelected] = useState<string | null>(null);
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
    <Page>
      <TopBar title="Kit">
        <SaveWord editing={editing} reachable={editing.saveState !== "waiting"} />
      </TopBar>
      <SaveBar editing={editing} reachable={editing.saveState !== "waiting"} />
      <Main>
        <Head>
          <div>
            <h1>Kit</h1>
            <p>
              {pieces.length
                ? `${pieces.length} pieces, ${pieces.filter((each) => each.carried !== false).length} of them on the table today. Shots keep copies: nothing changed here changes a shot.`
                : "Nothing on the shelf yet. Start with generic gear and change its numbers, or bring in a list."}
            </p>
          </div>
          <Adders pieces={pieces} shelf={shelf} onAdd={add} />
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
                onSelect={setSelected}
                onCarry={(kit_id, carried) =>
                  setPieces(pieces.map((each) => (each.gear.kit_id === kit_id ? { ...each, carried } : each)))
                }
              />
              <MeasuredRigs
                kit={kit}
                onForget={(gone) =>
                  edit((draft) => ({
                    ...draft,
                    measured_rigs: draft.measured_rigs.filter((_, place) => place !== gone),
                  }))
                }
              />
            </div>
          )}
          <section aria-label="One piece">
            {piece ? (
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
    </Page>
  );
}

interface OnePieceProps {
  gear: Gear;
  /** Pointer to it in the kit. */
  at: string;
  findings: Finding[];
  problemAt: (pointer: string) => string | undefined;
  onChange: (gear: Gear) => void;
  onPutAway: () => void;
  onCopy: () => void;
}

/** The numbers of one piece, what is assumed of it, and where it is used. */
function OnePiece({ gear, at, findings, problemAt, onChange, onPutAway, onCopy }: OnePieceProps) {
  const general = problemAt(at);
  const assumed = findings.filter(
    (finding) => finding.severity !== "trouble" && finding.field.startsWith(`${at}/`),
  );
  return (
    <Piece>
      <h2>{nameOf(gear)}</h2>
      <p>{wordsOf(gear.kind).one}</p>
      {general ? <p data-trouble="">{general}</p> : null}
      <GearForm
        key={gear.kit_id}
        gear={gear}
        onChange={onChange}
        problemAt={(pointer) => problemAt(`${at}${pointer}`)}
      />
      {assumed.map((finding) => (
        <p key={finding.code}>
          {finding.message} {finding.remedy}
        </p>
      ))}
      <PutAway key={`away ${gear.kit_id}`} gear={gear} onPutAway={onPutAway} onCopy={onCopy} />
    </Piece>
  );
}

function NoPiece({ isEmpty, onFirst }: { isEmpty: boolean; onFirst: () => void }) {
  return (
    <Piece>
      <h2>One piece at a time</h2>
      <p>
        Choose a piece on the left to see its numbers. A tick puts it on the table: the search uses what is
        there.
      </p>
      <Button isDisabled={isEmpty} onPress={onFirst}>
        The first one
      </Button>
    </Piece>
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

interface AddersProps {
  pieces: Kit["pieces"];
  shelf: Kit | undefined;
  onAdd: (gear: Gear) => void;
}

/** Another piece: generic with usual numbers, or one of one's own. */
function Adders({ pieces, shelf, onAdd }: AddersProps) {
  const addNew = (kind: Kind) => {
    const like = shelf?.pieces.find((each) => each.gear.kind === kind)?.gear;
    if (like) onAdd({ ...like, name: `new ${wordsOf(kind).one}`, kit_id: newKitId(kind) });
  };
  return (
    <>
      <Adder>
        <Pick
          label="Add generic gear"
          value={null}
          placeholder="with usual numbers"
          options={(shelf?.pieces ?? []).map(({ gear }) => ({
            id: gear.kit_id ?? "",
            label: nameOf(gear),
          }))}
          onChange={(id) => {
            const like = shelf?.pieces.find(({ gear }) => gear.kit_id === id)?.gear;
            if (!like) return;
            const taken = pieces.some((each) => each.gear.kit_id === id);
            onAdd(taken ? { ...like, kit_id: newKitId(like.kind) } : like);
          }}
        />
      </Adder>
      <Adder>
        <Pick
          label="Add a piece of your own"
          value={null}
          placeholder="what is it?"
          options={KINDS.map(({ kind, one }) => ({ id: kind, label: one }))}
          onChange={(kind) => addNew(kind as Kind)}
        />
      </Adder>
    </>
  );
}
