import { Button } from "../../controls/Button";
import { RoomyFold } from "../../controls/Fold";
import { Lead } from "../../controls/panel";
import { useBench } from "../../shot/ShotContext";

/** One frame of points that differ in worth: where to focus, by either school. */
export function WhereToAim() {
  const { shot, plan, edit } = useBench();
  const aim = plan?.aim;
  if (!aim || !aim.missed.length) return null;
  const there = Number(aim.behind_nearest_mm.toPrecision(6));
  const isThere =
    shot.focus_behind_nearest_mm !== null &&
    Math.abs(shot.focus_behind_nearest_mm - there) <= 1e-6 + aim.slack_mm / 100;
  return (
    <RoomyFold title="Where to aim one frame">
      {aim.words.map((line) => (
        <Lead key={line}>{line}</Lead>
      ))}
      <Button
        isDisabled={isThere}
        onPress={() => edit((draft) => ({ ...draft, focus_behind_nearest_mm: there }))}
      >
        {isThere ? "One frame is focused there" : "Focus one frame there"}
      </Button>
    </RoomyFold>
  );
}
