import type { Body, Lens } from "../../api/types";
import { QuantityField } from "../../controls/QuantityField";
import { Segments } from "../../controls/Segments";
import { along, by, byShare } from "../../controls/steps";
import { TextBox } from "../../controls/TextBox";
import { Fields, Wide } from "../bench/panel";
import { useBench } from "../bench/ShotContext";

const F_STOPS = [1, 1.4, 2, 2.8, 4, 5.6, 8, 11, 16, 22, 32, 45, 64];

/** The few numbers of a body, as on paper. */
export function BodyNumbers() {
  const { shot, edit, problemAt } = useBench();
  const { body } = shot;
  const set = (change: Partial<Body>) => edit((draft) => ({ ...draft, body: { ...draft.body, ...change } }));
  return (
    <Fields>
      <Wide>
        <TextBox label="Name" value={body.name ?? ""} maxLength={120} onChange={(name) => set({ name })} />
      </Wide>
      <QuantityField
        label="Sensor width"
        kind="length"
        value={body.sensor_width_mm}
        step={by(0.1, 1, 0.1)}
        onChange={(sensor_width_mm) => set({ sensor_width_mm })}
        problem={problemAt("/body/sensor_width_mm")}
      />
      <QuantityField
        label="Sensor height"
        kind="length"
        value={body.sensor_height_mm}
        step={by(0.1, 1, 0.1)}
        onChange={(sensor_height_mm) => set({ sensor_height_mm })}
        problem={problemAt("/body/sensor_height_mm")}
      />
      <QuantityField
        label="Pixels across"
        kind="count"
        value={body.pixels_across ?? null}
        step={by(16, 1000, 16)}
        onChange={(pixels_across) => set({ pixels_across })}
        onEmpty={() => set({ pixels_across: null })}
        emptyHint="not known"
        problem={problemAt("/body/pixels_across")}
      />
      <QuantityField
        label="Mount to sensor"
        kind="length"
        value={body.register_mm ?? 18}
        step={by(0.5, 5)}
        onChange={(register_mm) => set({ register_mm })}
        problem={problemAt("/body/register_mm")}
      />
    </Fields>
  );
}

/** The few numbers of a lens, as on its data sheet. */
export function LensNumbers() {
  const { shot, edit, problemAt } = useBench();
  const { lens } = shot;
  const set = (change: Partial<Lens>) => edit((draft) => ({ ...draft, lens: { ...draft.lens, ...change } }));
  return (
    <Fields>
      <Wide>
        <TextBox label="Name" value={lens.name ?? ""} maxLength={120} onChange={(name) => set({ name })} />
      </Wide>
      <QuantityField
        label="Focal length"
        kind="length"
        value={lens.focal_length_mm}
        step={by(1, 10, 1)}
        onChange={(focal_length_mm) => set({ focal_length_mm })}
        problem={problemAt("/lens/focal_length_mm")}
      />
      <QuantityField
        label="Closest focus"
        kind="length"
        value={lens.minimum_focus_distance_mm}
        step={by(1, 10, 1)}
        onChange={(minimum_focus_distance_mm) => set({ minimum_focus_distance_mm })}
        problem={problemAt("/lens/minimum_focus_distance_mm")}
        hint="subject to sensor mark"
      />
      <QuantityField
        label="Size there"
        kind="ratio"
        value={lens.closest_magnification}
        step={byShare}
        onChange={(closest_magnification) => set({ closest_magnification })}
        problem={problemAt("/lens/closest_magnification")}
      />
      <QuantityField
        label="Pupil magnification"
        kind="plain"
        value={lens.pupil_magnification ?? 1}
        step={by(0.05, 0.5, 0.1)}
        onChange={(pupil_magnification) => set({ pupil_magnification })}
        problem={problemAt("/lens/pupil_magnification")}
        hint="1 when not known"
      />
      <QuantityField
        label="Widest stop"
        kind="fNumber"
        value={lens.widest_f_number}
        step={along(F_STOPS)}
        onChange={(widest_f_number) => set({ widest_f_number })}
        problem={problemAt("/lens/widest_f_number")}
      />
      <QuantityField
        label="Narrowest stop"
        kind="fNumber"
        value={lens.narrowest_f_number}
        step={along(F_STOPS)}
        onChange={(narrowest_f_number) => set({ narrowest_f_number })}
        problem={problemAt("/lens/narrowest_f_number")}
      />
      <Wide>
        <Segments
          label="Aperture clicks by"
          value={lens.stops ?? "third"}
          options={[
            { id: "full", label: "full stops" },
            { id: "half", label: "halves" },
            { id: "third", label: "thirds" },
          ]}
          onChange={(stops) => set({ stops })}
        />
      </Wide>
      <QuantityField
        label="Barrel with hood"
        kind="length"
        value={lens.barrel_mm}
        step={by(1, 10)}
        onChange={(barrel_mm) => set({ barrel_mm })}
        problem={problemAt("/lens/barrel_mm")}
      />
      <QuantityField
        label="Grows by"
        kind="length"
        value={lens.barrel_growth_mm ?? 0}
        step={by(1, 10)}
        onChange={(barrel_growth_mm) => set({ barrel_growth_mm })}
        problem={problemAt("/lens/barrel_growth_mm")}
        hint="at closest focus"
      />
    </Fields>
  );
}
