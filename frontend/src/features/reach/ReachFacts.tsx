import { usePreferences } from "../../look/preferences";
import { length, stop } from "../../units/format";
import { Facts } from "../../controls/panel";
import { useBench } from "../../shot/ShotContext";

/** The rest of what the rig gives, as figures. */
export function ReachFacts() {
  const { plan } = useBench();
  const { units } = usePreferences();
  const reach = plan?.reach;
  const aperture = plan?.aperture;
  if (!reach) return null;
  return (
    <Facts>
      <dt>nearest point to lens</dt>
      <dd>{length(reach.nearest_point_mm, units)}</dd>
      <dt>sensor mark to focus</dt>
      <dd>{length(reach.subject_to_sensor_mm, units, 4)}</dd>
      {reach.is_fixed ? null : (
        <>
          <dt>focuses from</dt>
          <dd>{length(reach.nearest_focus_mm, units)}</dd>
          <dt>to</dt>
          <dd>{reach.farthest_focus_mm === null ? "infinity" : length(reach.farthest_focus_mm, units)}</dd>
        </>
      )}
      {reach.bellows_draw_mm === null ? null : (
        <>
          <dt>bellows drawn to</dt>
          <dd>{length(reach.bellows_draw_mm, units)}</dd>
        </>
      )}
      {aperture ? (
        <>
          <dt>{stop(aperture.f_number)} works as</dt>
          <dd>{stop(aperture.effective_f_number)}</dd>
          <dt>light lost</dt>
          <dd>{aperture.stops_lost.toFixed(1)} stops</dd>
        </>
      ) : null}
    </Facts>
  );
}
