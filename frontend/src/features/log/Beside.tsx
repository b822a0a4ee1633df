import { useEffect, useRef, useState } from "react";
import styled from "styled-components";
import type { LogEntry } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { fonts } from "../../look/theme";
import { Segments } from "../../controls/Segments";
import { HeldTogether, SCALES, type Scale } from "../../drawing/HeldTogether";
import { rowsOf } from "./words";

const Table = styled.table`
  width: 100%;
  max-width: 900px;
  margin-bottom: 18px;
  border-collapse: collapse;
  th,
  td {
    padding: 5px 10px 5px 0;
    text-align: left;
    vertical-align: top;
    border-bottom: 1px solid ${({ theme }) => theme.line};
    overflow-wrap: anywhere;
  }
  td {
    font: 500 13.5px ${fonts.figures};
  }
  td[data-differs] {
    font-weight: 750;
  }
  tbody th {
    font-weight: 400;
    color: ${({ theme }) => theme.soft};
  }
`;

/** Two or three entries beside each other; what differs stands out. */
export function Beside({ entries }: { entries: readonly LogEntry[] }) {
  const { units } = usePreferences();
  const top = useRef<HTMLTableElement>(null);
  useEffect(() => {
    void top.current?.scrollIntoView({ block: "nearest" });
  }, [entries.length]);
  const columns = entries.map((entry) => rowsOf(entry, units));
  return (
    <>
      <Table ref={top} aria-label="Beside each other">
        <thead>
          <tr>
            <th scope="col" />
            {entries.map((entry) => (
              <th key={entry.entry_id} scope="col">
                {entry.set.shot_name}, {entry.made_at.slice(0, 10)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {(columns[0] ?? []).map(([name], row) => {
            const values = columns.map((column) => column[row]?.[1] ?? "");
            return (
              <tr key={name}>
                <th scope="row">{name}</th>
                {values.map((value, index) => (
                  <td key={entries[index]?.entry_id} data-differs={new Set(values).size > 1 ? "" : undefined}>
                    {value}
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </Table>
      <Pictures entries={entries} />
    </>
  );
}

const Shown = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 8px;
  height: 420px;
  max-width: 1100px;
  margin-bottom: 20px;
  & > :first-child {
    max-width: 320px;
  }
`;

/** What came of them, held together at the scale of their own pixels. */
function Pictures({ entries }: { entries: readonly LogEntry[] }) {
  const [scale, setScale] = useState<Scale>("whole");
  const pictured = entries.filter((entry) => entry.done.folder);
  if (!pictured.length) return null;
  return (
    <Shown>
      <Segments label="Pictures" value={scale} options={SCALES} onChange={setScale} />
      <HeldTogether
        scale={scale}
        pictures={pictured.map((entry) => ({
          id: entry.entry_id,
          label: `What came of ${entry.set.shot_name}, ${entry.made_at.slice(0, 10)}`,
          href: `/api/log/${entry.entry_id}/picture?width=20000`,
        }))}
      />
    </Shown>
  );
}
