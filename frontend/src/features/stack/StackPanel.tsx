import { usePreferences } from "../../look/preferences";
import type { Shot } from "../../api/types";
import { Check } from "../../controls/Check";
import { QuantityField } from "../../controls/QuantityField";
import { Segments } from "../../controls/Segments";
import { by } from "../../controls/steps";
import { frames, length, percent, seconds } from "../../units/format";
import { AnswerBox, Facts, Fields, Heading, Lead, Section, Wide } from "../../controls/panel";
import { useBench } from "../../shot/ShotContext";
import { RailPick } from "./RailPick";

const OVERLAPS = [
  { id: "0.25", label: "quarter" },
  { id: "0.5", label: "half" },
  { id: "0.667", label: "two thirds" },
];

/** Station 5: step, steps and frames, by rail or by ring, against the time there is. */
export function StackPanel() {
  const { shot, plan, way, lookAt, edit, problemAt } = useBench();
  const { units } = usePreferences();
  const options = shot.stack;
  const kind = way?.kind === "ring" ? "ring" : "rail";
  const planned = way?.stack ? way : plan?.ways?.find((each) => each.id === kind);
  const stack = planned?.stack;
  const overlap = options?.overlap ?? 0.5;
  const set = (change: Partial<NonNullable<Shot["stack"]>>) =>
    edit((draft) => ({ ...draft, stack: { ...draft.stack, ...change } as Shot["stack"] }));
  const spare = stack ? stack.frames - stack.covering_frames : 0;
  return (
    <>
      <Heading>How many frames, how far apart?</Heading>
      <Lead>The first frame focuses on the nearest point, the last on the farthest or just past it.</Lead>
      <Fields>
        <Wide>
          <Segments
            label="What moves"
            value={kind}
            options={[
              { id: "rail", label: "camera on a rail" },
              { id: "ring", label: "focus ring" },
            ]}
            onChange={lookAt}
          />
        </Wide>
      </Fields>
      {stack && planned ? (
        <>
          <AnswerBox>
            <strong>
              {stack.steps} steps, {frames(stack.frames)}
            </strong>
            {kind === "rail"
              ? `Every step ${length(stack.step_mm, units)}.`
              : `Steps from ${length(stack.step_mm, units)} to ${length(stack.largest_step_mm, units)}; the size changes along the stack, which crops ${percent(stack.crop)} of the width.`}
            {spare ? ` ${spare} of the frames are spare, outside the depth.` : ""}
          </AnswerBox>
          <Facts>
            <dt>first frame</dt>
            <dd>{length(stack.first_mm, units)}</dd>
            <dt>last frame</dt>
            <dd>{length(stack.last_mm, units, 4)}</dd>
            <dt>least contrast between</dt>
            <dd>{percent(Math.max(planned.worst_contrast, 0))}</dd>
            <dt>frames a depth</dt>
            <dd>{stack.frames_per_depth.toFixed(1)}</dd>
            <dt>time</dt>
            <dd>{seconds(planned.time_s)}</dd>
            {shot.subject.hold_still_s ? (
              <>
                <dt>the subject holds</dt>
                <dd>{seconds(shot.subject.hold_still_s)}</dd>
              </>
            ) : null}
          </Facts>
          {stack.slabs?.length ? (
            <Lead>
              Merge in {stack.slabs.length} slabs first: frames{" "}
              {stack.slabs.map((slab) => `${slab[0]}–${slab[1]}`).join(", ")}.
            </Lead>
          ) : null}
        </>
      ) : planned ? (
        <AnswerBox data-trouble="">
          <strong>No stack this way</strong>
          {planned.against.join("; ")}.
        </AnswerBox>
      ) : null}
      <Section>Overlap</Section>
      <Fields>
        <Wide>
          <Segments
            label="Of one frame's depth with the next"
            value={OVERLAPS.find((each) => Math.abs(Number(each.id) - overlap) < 0.002)?.id ?? ""}
            options={OVERLAPS}
            onChange={(id) => set({ overlap: id === "0.667" ? 2 / 3 : Number(id) })}
          />
        </Wide>
        <QuantityField
          label="Overlap"
          kind="percent"
          value={overlap}
          step={(value, direction, coarse) => Math.min(by(0.01, 0.05)(value, direction, coarse), 0.9)}
          onChange={(value) => set({ overlap: value })}
          problem={problemAt("/stack/overlap")}
        />
        <QuantityField
          label="Settle after a move"
          kind="time"
          value={options?.settle_s ?? 2}
          step={by(0.1, 1)}
          onChange={(settle_s) => set({ settle_s })}
          problem={problemAt("/stack/settle_s")}
        />
        <QuantityField
          label="Spare before"
          kind="count"
          value={options?.spare_before ?? 1}
          step={by(1, 5)}
          onChange={(spare_before) => set({ spare_before })}
          problem={problemAt("/stack/spare_before")}
        />
        <QuantityField
          label="Spare behind"
          kind="count"
          value={options?.spare_after ?? 1}
          step={by(1, 5)}
          onChange={(spare_after) => set({ spare_after })}
          problem={problemAt("/stack/spare_after")}
        />
      </Fields>
      <Section>Rail and camera</Section>
      <Fields>
        <Wide>
          <RailPick />
        </Wide>
        <QuantityField
          label="Smallest step"
          kind="length"
          value={options?.rail_smallest_step_mm ?? null}
          step={by(0.001, 0.01, 0.001)}
          onChange={(rail_smallest_step_mm) => set({ rail_smallest_step_mm })}
          onEmpty={() => set({ rail_smallest_step_mm: null })}
          emptyHint="not known"
          problem={problemAt("/stack/rail_smallest_step_mm")}
        />
        <QuantityField
          label="Travel"
          kind="length"
          value={options?.rail_travel_mm ?? null}
          step={by(1, 10, 1)}
          onChange={(rail_travel_mm) => set({ rail_travel_mm })}
          onEmpty={() => set({ rail_travel_mm: null })}
          emptyHint="not known"
          problem={problemAt("/stack/rail_travel_mm")}
        />
        <QuantityField
          label="Write or recharge"
          kind="time"
          value={options?.recovery_s ?? 1}
          step={by(0.1, 1)}
          onChange={(recovery_s) => set({ recovery_s })}
          problem={problemAt("/stack/recovery_s")}
        />
        <Wide>
          <Check
            label="Camera takes a dark frame after each"
            value={options?.noise_reduction ?? false}
            onChange={(noise_reduction) => set({ noise_reduction })}
          />
        </Wide>
      </Fields>
    </>
  );
}
