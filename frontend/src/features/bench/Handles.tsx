import type { Plan, Shot } from "../../api/types";
import { usePreferences } from "../../look/preferences";
import { Handle } from "../../drawing/Handle";
import type { Viewport } from "../../drawing/viewport";
import { length, stop } from "../../units/format";
import { stopBeside, stopReaching } from "../../shot/stopChoice";
import type { ShotEditing } from "../../shot/useShot";

interface HandlesProps {
  view: Viewport;
  shot: Shot;
  plan: Plan;
  depth: number;
  shift: number;
  /** While the nearest point is dragged: how far it is from where it was, mm; null when it is let go. */
  onNear: (moved: number, depth: number, done: boolean) => void;
  edit: ShotEditing["edit"];
}

/** What can be taken hold of on the drawing: both limits of the subject, the focus and the aperture. */
export function Handles({ view, shot, plan, depth, shift, onNear, edit }: HandlesProps) {
  const { units } = usePreferences();
  // From the draft where it says so: what is held moves with the hand, not with the answer.
  const focus = shot.focus_behind_nearest_mm ?? plan.focus_behind_nearest_mm ?? 0;
  const single = plan.ways.find((way) => way.id === "one");
  const band = single?.bands_mm[0];
  const middle = view.height / 2;

  const setDepth = (value: number, passing: boolean) =>
    edit((draft) => ({ ...draft, subject: { ...draft.subject, depth_mm: Math.max(value, 0) } }), { passing });
  const setFocus = (value: number, passing: boolean) =>
    edit((draft) => ({ ...draft, focus_behind_nearest_mm: value - shift }), { passing });
  const setStop = (fNumber: number, passing: boolean) =>
    edit((draft) => ({ ...draft, aperture: { ...draft.aperture, f_number: fNumber } }), { passing });

  return (
    <>
      {plan.depth_from_points ? null : (
        <>
          <Handle
            label={`Nearest point that must be sharp; depth is ${length(depth, units)}`}
            look="limit"
            view={view}
            place={shift}
            top={middle - view.height * 0.28}
            onMove={(place) => onNear(place, depth, false)}
            onDone={(place) => onNear(place, depth, true)}
          />
          <Handle
            label={`Farthest point that must be sharp, ${length(depth, units)} behind the nearest`}
            look="limit"
            view={view}
            place={shift + depth}
            top={middle - view.height * 0.28}
            onMove={(place) => setDepth(place - shift, true)}
            onDone={(place) => setDepth(place - shift, false)}
          />
        </>
      )}
      <Handle
        label={`Focus of one frame, ${length(focus, units)} behind the nearest point`}
        look="focus"
        view={view}
        place={focus + shift}
        top={middle}
        onMove={(place) => setFocus(place, true)}
        onDone={(place) => setFocus(place, false)}
      />
      {band && (band[1] as number) > (band[0] as number) ? (
        <Handle
          label={`Aperture ${stop(single.f_number)}: far end of what one frame holds sharp`}
          look="stop"
          view={view}
          place={Math.min(band[1] as number, view.to) + shift}
          top={middle + view.height * 0.28}
          onMove={(place) => setStop(stopReaching(plan, shot, place - shift - focus), true)}
          onDone={(place) => setStop(stopReaching(plan, shot, place - shift - focus), false)}
          onArrow={(direction, coarse) =>
            setStop(stopBeside(plan, shot, direction * (coarse ? 3 : 1)), false)
          }
        />
      ) : null}
    </>
  );
}
