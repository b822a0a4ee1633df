import type { Point } from "../../api/types";
import { QuantityField } from "../../controls/QuantityField";
import { by } from "../../controls/steps";
import { useBench } from "../../shot/ShotContext";
import type { Depth } from "../../shot/moves";

interface FlatPartProps {
  depth: Extract<Point["depth"], { by: "angle" }>;
  /** JSON pointer of the point. */
  field: string;
  setDepth: (change: Partial<Depth>) => void;
}

/** A flat part by its angle and size. */
export function FlatPart({ depth, field, setDepth }: FlatPartProps) {
  const { problemAt } = useBench();
  return (
    <>
      <QuantityField
        label="From square"
        kind="plain"
        unit="°"
        value={depth.angle_deg}
        step={by(1, 5, 1)}
        onChange={(angle_deg) => setDepth({ angle_deg })}
        problem={problemAt(`${field}/depth/angle_deg`)}
      />
      <QuantityField
        label="Recedes toward"
        kind="plain"
        unit="°"
        value={depth.recedes_deg}
        step={by(5, 45, -360)}
        onChange={(recedes_deg) => setDepth({ recedes_deg })}
        problem={problemAt(`${field}/depth/recedes_deg`)}
        hint="0 right, 90 up, 180 left"
      />
      <QuantityField
        label="Long that way"
        kind="length"
        value={depth.length_mm}
        step={by(1, 10, 1)}
        onChange={(length_mm) => setDepth({ length_mm })}
        problem={problemAt(`${field}/depth/length_mm`)}
      />
      <QuantityField
        label="Wide"
        kind="length"
        value={depth.width_mm}
        step={by(1, 10, 1)}
        onChange={(width_mm) => setDepth({ width_mm })}
        problem={problemAt(`${field}/depth/width_mm`)}
      />
    </>
  );
}
