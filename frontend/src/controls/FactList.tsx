import { Fragment } from "react";
import { Facts } from "./panel";

/** Names on the left, figures on the right. */
export function FactList({ rows }: { rows: readonly (readonly [string, string])[] }) {
  return (
    <Facts>
      {rows.map(([name, value]) => (
        <Fragment key={name}>
          <dt>{name}</dt>
          <dd>{value}</dd>
        </Fragment>
      ))}
    </Facts>
  );
}
