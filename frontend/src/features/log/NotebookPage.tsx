import { useState } from "react";
import styled from "styled-components";
import { sentenceOf } from "../../api/client";
import { Button, LinkButton } from "../../controls/Button";
import { TextBox } from "../../controls/TextBox";
import { TopBar } from "../../controls/TopBar";
import { useArrival } from "../../controls/useArrival";
import { useStill } from "../../controls/useStill";
import { useLog } from "../../shot/useLog";
import { Beside } from "./Beside";
import { Entry } from "./Entry";

const MOST_BESIDE = 3;

const Page = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  height: 100vh;
  height: 100dvh;
  min-height: 560px;
  @media print {
    display: block;
    height: auto;
    & > header {
      display: none;
    }
  }
`;

const Main = styled.main`
  overflow: auto;
  padding: 16px 24px 40px;
  @media print {
    overflow: visible;
  }
`;

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 12px;
  margin-bottom: 16px;
  max-width: 900px;
  h1 {
    flex: 1 1 200px;
    font-size: 22px;
    letter-spacing: -0.01em;
  }
  @media print {
    & > :not(h1) {
      display: none;
    }
  }
`;

/** A bench notebook, not a table of records: the newest first. */
export function NotebookPage() {
  const [words, setWords] = useState("");
  const [beside, setBeside] = useState<string[]>([]);
  const held = useLog({ words });
  const entries = useStill(held.entries);
  useArrival("Notebook");
  const compare = (id: string, on: boolean) =>
    setBeside((now) => (on ? [...now, id].slice(-MOST_BESIDE) : now.filter((each) => each !== id)));
  const shown = entries.filter((entry) => beside.includes(entry.entry_id));
  return (
    <Page>
      <TopBar title="Notebook" />
      <Main>
        <Head>
          <h1>Notebook</h1>
          <div style={{ flex: "1 1 240px" }}>
            <TextBox label="Look for words, a rig, a size, a stop, a day" value={words} onChange={setWords} />
          </div>
          <Button onPress={() => window.print()}>Print</Button>
          <LinkButton href="/api/log/file?as=csv" download="">
            As CSV
          </LinkButton>
          <LinkButton href="/api/log/file?as=json" download="">
            As JSON
          </LinkButton>
        </Head>
        {held.failed ? <p role="alert">{sentenceOf(held.failed)}</p> : null}
        {held.asThen.error ? <p role="alert">{sentenceOf(held.asThen.error)}</p> : null}
        {shown.length > 1 ? <Beside entries={shown} /> : null}
        {!held.loading && !held.entries.length ? (
          <p>{words ? `Nothing in it says “${words}”.` : "Empty yet. Every run writes itself in here."}</p>
        ) : null}
        {entries.map((entry) => (
          <Entry
            key={entry.entry_id}
            entry={entry}
            held={held}
            compared={beside.includes(entry.entry_id)}
            onCompare={(on) => compare(entry.entry_id, on)}
          />
        ))}
      </Main>
    </Page>
  );
}
