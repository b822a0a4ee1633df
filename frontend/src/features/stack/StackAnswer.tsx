import type { WayAnswer } from "../../api/types";
import { AnswerBox, Facts, Lead } from "../../controls/panel";
import { usePreferences } from "../../look/preferences";
import { useBench } from "../../shot/ShotContext";
import { frames, length, percent, seconds } from "../../units/format";

/** The stack in figures, or why there is none. */
export function StackAnswer({ way, kind }: { way: WayAnswer; kind: "rail" | "ring" }) {
  const { shot } = useBench();
  const { units } = usePreferences();
  const { stack } = way;
  if (!stack) {
    return (
      <AnswerBox data-trouble="">
        <strong>No stack this way</strong>
        {way.against.join("; ")}.
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
        <dd>{percent(Math.max(way.worst_contrast, 0))}</dd>
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
