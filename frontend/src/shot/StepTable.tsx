import styled from "styled-components";
import { usePreferences } from "../look/preferences";
import { fonts } from "../look/theme";
import type { WayAnswer } from "../api/types";
import { decimalsFor, fixed, times } from "../units/format";
import { useBench } from "./ShotContext";
import { planeOf } from "./moves";

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
  const { shot, way, plan } = useBench();
  if (!way?.frames) return <p>{plan ? "This way has no frames to list." : ""}</p>;
  return (
    <Scroll tabIndex={0} role="region" aria-label="Step table">
      <Steps way={way} magnification={plan?.reach?.magnification ?? 0} counts={planeOf(shot).rail_counts} />
    </Scroll>
  );
}

interface StepsProps {
  way: WayAnswer;
  /** Of the framing, for ways that keep it. */
  magnification: number;
  /** Whether the rail's marks grow toward the subject. */
  counts: "toward" | "away" | undefined;
}

export function Steps({ way, magnification, counts }: StepsProps) {
  const { units } = usePreferences();
  const kept = way.back_off?.magnification ?? magnification;
  const startsAt = way.stack?.first_rail_mm ?? null;
  const sizes = way.stack?.magnifications ?? [];
  const first = way.focuses_mm[0] ?? 0;
  const decimals = decimalsFor(way.stack?.step_mm ?? 1);
  const show = (mm: number) => fixed(mm, units, decimals);
  const mark = (moved: number) => ((startsAt ?? 0) + (counts === "away" ? -moved : moved)).toFixed(decimals);
  return (
    <Table>
      <thead>
        <tr>
          <th scope="col">frame</th>
          {startsAt === null ? null : <th scope="col">rail mark, mm</th>}
          <th scope="col">moved from first, {units}</th>
          <th scope="col">focus behind nearest, {units}</th>
          <th scope="col">sharp from, {units}</th>
          <th scope="col">to, {units}</th>
          <th scope="col">size</th>
        </tr>
      </thead>
      <tbody>
        {way.focuses_mm.map((focus, index) => {
          const band = way.bands_mm[index];
          const spare = way.stack && (focus < -1e-9 || index - spareBefore(way) >= way.stack.covering_frames);
          return (
            <tr key={index} {...(spare ? { "data-spare": "" } : {})}>
              <td>
                {index + 1}
                {spare ? " spare" : ""}
              </td>
              {startsAt === null ? null : <td>{mark(focus - first)}</td>}
              <td>{show(focus - first)}</td>
              <td>{show(focus)}</td>
              <td>{show(band?.[0] ?? 0)}</td>
              <td>{show(band?.[1] ?? 0)}</td>
              <td>{times(sizes.length > 1 ? (sizes[index] ?? 0) : kept)}</td>
            </tr>
          );
        })}
      </tbody>
    </Table>
  );
}

function spareBefore(way: WayAnswer): number {
  return way.focuses_mm.filter((focus) => focus < -1e-9).length;
}
