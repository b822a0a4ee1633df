import { keepPreviousData, useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import { usePreferences } from "../look/preferences";
import { fonts } from "../look/theme";
import { api, dataOf, sentenceOf } from "../api/client";
import type { Shot, WayAnswer } from "../api/types";
import { decimalsFor, fixed, times } from "../units/format";
import { useBench } from "./ShotContext";
import { useCalm } from "./useCalm";

const Scroll = styled.div`
  overflow: auto;
  min-height: 0;
  grid-row: 1 / -1;
`;

export const Table = styled.table`
  border-collapse: collapse;
  width: 100%;
  max-width: 760px;
  font: 500 13.5px ${fonts.figures};
  th {
    position: sticky;
    top: 0;
    background: ${({ theme }) => theme.ground};
    font: 500 12.5px ${fonts.text};
    color: ${({ theme }) => theme.soft};
  }
  th,
  td {
    text-align: right;
    padding: 5px 12px;
    border-bottom: 1px solid ${({ theme }) => theme.line};
  }
  td {
    white-space: nowrap;
  }
  tr[data-spare] td {
    color: ${({ theme }) => theme.soft};
  }
`;

/** The steps of the way looked at, as a table. */
export function StepTable() {
  const { drawn, way, plan } = useBench();
  if (!way?.frames) return <p>{plan ? "This way has no frames to list." : ""}</p>;
  return (
    <Scroll tabIndex={0} role="region" aria-label="Step table">
      <Steps shot={drawn} way={way} />
    </Scroll>
  );
}

/** The step table of a way, as the program works it out. */
export function Steps({ shot, way }: { shot: Shot; way: WayAnswer }) {
  const { units } = usePreferences();
  const body = { shot: useCalm(shot, 200), way: way.id };
  const table = useQuery({
    queryKey: ["steps", body],
    queryFn: () => dataOf(api.POST("/api/plan/steps", { body })),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 10_000,
  });
  if (table.isError) return <p role="alert">{sentenceOf(table.error)}</p>;
  const rows = table.data?.rows ?? [];
  const marked = rows.some((row) => row.rail_mark_mm !== null);
  const turned = rows.some((row) => row.knob_words);
  const inSlabs = rows.some((row) => row.slabs.length);
  const decimals = decimalsFor(way.stack?.step_mm ?? 1);
  const show = (mm: number) => fixed(mm, units, decimals);
  return (
    <Table>
      <thead>
        <tr>
          <th scope="col">frame</th>
          {marked ? <th scope="col">rail mark, mm</th> : null}
          {turned ? <th scope="col">turn the knob on by</th> : null}
          <th scope="col">moved from first, {units}</th>
          <th scope="col">focus behind nearest, {units}</th>
          <th scope="col">sharp from, {units}</th>
          <th scope="col">to, {units}</th>
          <th scope="col">size</th>
          {inSlabs ? <th scope="col">slab</th> : null}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.frame} {...(row.spare || !row.kept ? { "data-spare": "" } : {})}>
            <td>
              {row.frame}
              {row.spare ? " spare" : ""}
              {row.kept ? "" : " left out"}
            </td>
            {marked ? <td>{row.rail_mark_mm?.toFixed(decimals)}</td> : null}
            {turned ? <td>{row.knob_words}</td> : null}
            <td>{show(row.move_from_first_mm)}</td>
            <td>{show(row.focus_behind_nearest_mm)}</td>
            <td>{show(row.sharp_from_mm)}</td>
            <td>{show(row.sharp_to_mm)}</td>
            <td>{times(row.magnification)}</td>
            {inSlabs ? <td>{row.slabs.join(", ")}</td> : null}
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
