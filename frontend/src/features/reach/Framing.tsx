import type { Shot } from "../../api/types";
import { Fields, Wide } from "../../controls/panel";
import { QuantityField } from "../../controls/QuantityField";
import { Segments } from "../../controls/Segments";
import { by, byShare } from "../../controls/steps";
import { ShotQuantity } from "../../shot/fields";
import { useBench } from "../../shot/ShotContext";

const BY = [
  { id: "frame_width", label: "its width" },
  { id: "magnification", label: "size on sensor" },
  { id: "closest", label: "what it gives" },
] as const;

/** What the frame is asked by. */
export function Framing() {
  const { shot, plan, edit, problemAt, cautionAt } = useBench();
  const { framing } = shot;
  const reach = plan?.reach;
  const set = (value: Shot["framing"]) => edit((draft) => ({ ...draft, framing: value }));
  return (
    <Fields>
      <Wide>
        <Segments
          label="Frame by"
          value={framing.by}
          options={BY}
          onChange={(kind) =>
            set(
              kind === "closest"
                ? { by: "closest" }
                : kind === "magnification"
                  ? { by: "magnification", magnification: round(reach?.magnification ?? 0.5) }
                  : { by: "frame_width", frame_width_mm: round(reach?.frame_width_mm ?? 72) },
            )
          }
        />
      </Wide>
      {framing.by === "closest" ? null : (
        <Wide>
          {framing.by === "frame_width" ? (
            <QuantityField
              label="Frame width"
              kind="length"
              value={framing.frame_width_mm}
              step={byShare}
              onChange={(frame_width_mm) => set({ by: "frame_width", frame_width_mm })}
              problem={problemAt("/framing")}
              hint={cautionAt("/framing")}
            />
          ) : (
            <QuantityField
              label="Magnification"
              kind="ratio"
              value={framing.magnification}
              step={byShare}
              onChange={(magnification) => set({ by: "magnification", magnification })}
              problem={problemAt("/framing")}
              hint={cautionAt("/framing")}
            />
          )}
        </Wide>
      )}
      <Wide>
        <ShotQuantity
          at="/back_off_factor"
          step={by(0.1, 0.5, 1.1)}
          unit="×"
          emptyHint="until it holds"
          hint="and crop: one of the ways"
        />
      </Wide>
    </Fields>
  );
}

function round(value: number): number {
  return Number(value.toPrecision(4));
}
