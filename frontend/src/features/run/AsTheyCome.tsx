import { useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import { api, dataOf } from "../../api/client";
import type { Run } from "../../api/types";
import { FactList } from "../../controls/FactList";
import { fixed, unbroken } from "../../units/format";

const AGAIN_MS = 400;
const SHOWN = 3;

const Said = styled.ul`
  margin: 0 0 10px;
  padding: 10px 14px;
  list-style: none;
  border-left: 4px dashed ${({ theme }) => theme.trouble};
  background: ${({ theme }) => theme.raised};
  li + li {
    margin-top: 6px;
  }
`;

/** Frames measured beside those before them while the hand is still on the rail. */
export function AsTheyCome({ run }: { run: Run }) {
  const seen = useQuery({
    queryKey: ["looks", run.run_id, run.files.filter(Boolean).length],
    enabled: run.folder !== null && run.files.some(Boolean),
    placeholderData: (last, before) => (before?.queryKey[1] === run.run_id ? last : undefined),
    refetchInterval: (query) => (query.state.data?.more ? AGAIN_MS : false),
    queryFn: () => dataOf(api.GET("/api/runs/{run_id}/looks", { params: { path: { run_id: run.run_id } } })),
  });
  const looks = seen.data?.looks ?? [];
  const last = looks.at(-1);
  const trouble = looks.filter((look) => look.said);
  if (!last) return null;
  return (
    <div aria-live="polite">
      {trouble.length ? (
        <Said>
          {trouble.slice(-SHOWN).map((look) => (
            <li key={look.file}>
              <strong>{look.file}</strong> {unbroken(look.said)}
            </li>
          ))}
        </Said>
      ) : null}
      <FactList
        rows={[
          ["last looked at", last.file],
          [
            "light against the first",
            last.light_ev === null ? "cannot be told" : `${signed(last.light_ev)} stops`,
          ],
          ["the view moved", last.moved_px === null ? "—" : `${last.moved_px.toFixed(1)} px`],
        ]}
      />
    </div>
  );
}

const signed = (value: number) => (value < 0 ? "−" : "+") + fixed(Math.abs(value), "mm", 2);
