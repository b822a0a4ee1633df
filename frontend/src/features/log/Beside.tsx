import { useEffect, useRef } from "react";
import styled from "styled-components";
import type { LogEntry } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { fonts } from "../../look/theme";
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
  img {
    width: 100%;
    max-width: 260px;
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
    <Table ref={top} aria-label="Beside each other">
      <thead>
        <tr>
          <th scope="col" />
          {entries.map((entry) => (
            <th key={entry.entry_id} scope="col">
              {entry.set.shot_name}, {entry.made_at.slice(0, 10)}
              {entry.done.folder ? (
                <img src={`/api/log/${entry.entry_id}/picture`} alt={`What came of ${entry.set.shot_name}`} />
              ) : null}
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
  );
}
