import type { WayAnswer } from "../../api/types";
import { AnswerBox, Facts, Lead } from "../../controls/panel";
import { usePreferences } from "../../look/preferences";
import { useBench } from "../../shot/ShotContext";
import type { Units } from "../../units/units";
import { frames, length, percent, seconds } from "../../units/format";

/** One gap by its ends, several by how many and how much. */
function gapWords(gaps: readonly (readonly number[])[], units: Units): string {
  const [near = 0, far = 0] = gaps[0] ?? [];
  if (gaps.length === 1) return `${length(near, units)} to ${length(far, units)}`;
  const open = gaps.reduce((sum, [from = 0, to = 0]) => sum + to - from, 0);
  return `${gaps.length} gaps, ${length(open, units)}`;
}

const capital = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

/** The stack in figures, or why there is none. */
export function StackAnswer({ way, kind }: { way: WayAnswer; kind: "rail" | "ring" | "hand" }) {
  const { shot } = useBench();
  const { units } = usePreferences();
  const { stack } = way;
  if (!stack) {
    return (
      <AnswerBox data-trouble="">
        <strong>No stack this way</strong>
        {capital(way.against.join("; "))}.
      </AnswerBox>
    );
  }
  const spare = stack.frames - stack.covering_frames;
  return (
    <>
      <AnswerBox>
        <strong>
          {stack.steps} steps, {frames(stack.frames)}
        </strong>
        {kind !== "ring" || stack.largest_step_mm - stack.step_mm < 1e-6 * stack.step_mm
          ? `Every step ${length(stack.step_mm, units)}.`
          : `Steps from ${length(stack.step_mm, units)} to ${length(stack.largest_step_mm, units)}; the size changes along the stack, which crops ${percent(stack.crop)} of the width.`}
        {stack.own ? " As you set it." : ""}
        {spare ? ` ${spare} of the frames are spare, outside the depth.` : ""}
      </AnswerBox>
      <Facts>
        <dt>first frame</dt>
        <dd>{length(stack.first_mm, units)}</dd>
        <dt>last frame</dt>
        <dd>{length(stack.last_mm, units, 4)}</dd>
        <dt>least contrast between</dt>
        <dd>{percent(Math.max(way.worst_contrast, 0))}</dd>
        {stack.gaps_mm.length ? (
          <>
            <dt>in no frame{kind === "hand" ? ", as meant" : ""}</dt>
            <dd data-trouble="">{gapWords(stack.gaps_mm, units)}</dd>
          </>
        ) : null}
        {stack.whole_share != null ? (
          <>
            <dt>series that hold all</dt>
            <dd>{percent(stack.whole_share)}</dd>
            <dt>series to merge</dt>
            <dd>{stack.series ?? "more than six"}</dd>
          </>
        ) : null}
        <dt>frames a depth</dt>
        <dd>{stack.frames_per_depth.toFixed(1)}</dd>
        {shot.stack.keep_every > 1 ? (
          <>
            <dt>kept for the merge</dt>
            <dd>
              {frames(stack.kept_frames)},{" "}
              {stack.kept_overlap >= 0 ? `${percent(stack.kept_overlap)} overlap` : "with gaps"}
            </dd>
          </>
        ) : null}
        <dt>time</dt>
        <dd>{seconds(way.time_s)}</dd>
        {shot.subject.hold_still_s ? (
          <>
            <dt>it must hold still</dt>
            <dd>
              {seconds(way.hold_s)} of {seconds(shot.subject.hold_still_s)}
            </dd>
          </>
        ) : null}
      </Facts>
      {stack.camera_words ? <Lead>{stack.camera_words}</Lead> : null}
      {stack.slabs.length ? (
        <Lead>
          Merge in {stack.slabs.length} slabs first:{" "}
          {shot.stack.keep_every > 1 ? "of the frames kept " : "frames "}
          {stack.slabs.map((slab) => `${slab[0]}–${slab[1]}`).join(", ")}.
        </Lead>
      ) : null}
    </>
  );
}
