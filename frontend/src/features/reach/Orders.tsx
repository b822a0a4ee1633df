import styled from "styled-components";
import { usePreferences } from "../../look/preferences";
import { FigureTable } from "../../controls/FigureTable";
import { length, lightLost, times } from "../../units/format";
import { Lead, Section } from "../../controls/panel";
import { useBench } from "../../shot/ShotContext";

const Box = styled.div`
  margin-bottom: 14px;
`;

/** Where the order of the pieces matters: what each would give, the ring left where it is. */
export function Orders() {
  const { plan } = useBench();
  const { units } = usePreferences();
  const orders = plan?.reach?.orders ?? [];
  if (!orders.length) return null;
  return (
    <Box>
      <Section>Which goes first</Section>
      <Lead>The same pieces with the focus ring left where it is.</Lead>
      <FigureTable>
        <thead>
          <tr>
            <th>order</th>
            <th>size</th>
            <th>room</th>
            <th>stops</th>
          </tr>
        </thead>
        <tbody>
          {orders.map((order) => (
            <tr key={order.words} {...(order.this ? { "data-chosen": "" } : {})}>
              <td>
                {order.words}
                {order.this ? " (this)" : ""}
              </td>
              <td>{times(order.magnification)}</td>
              <td>{length(order.working_distance_mm, units)}</td>
              <td>{lightLost(order.stops_lost)}</td>
            </tr>
          ))}
        </tbody>
      </FigureTable>
    </Box>
  );
}
