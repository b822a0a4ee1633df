import { AperturePanel } from "../aperture/AperturePanel";
import { CheckPanel } from "../check/CheckPanel";
import { LightPanel } from "../light/LightPanel";
import { LogPanel } from "../log/LogPanel";
import { PlanePanel } from "../plane/PlanePanel";
import { ReachPanel } from "../reach/ReachPanel";
import { RunPanel } from "../run/RunPanel";
import { StackPanel } from "../stack/StackPanel";
import { SubjectPanel } from "../subject/SubjectPanel";
import type { StationId } from "../../shot/stations";

/** The panel of a station. */
export function StationPanel({ station, shotId }: { station: StationId; shotId: string }) {
  switch (station) {
    case "subject":
      return <SubjectPanel shotId={shotId} />;
    case "reach":
      return <ReachPanel shotId={shotId} />;
    case "aperture":
      return <AperturePanel />;
    case "plane":
      return <PlanePanel shotId={shotId} />;
    case "stack":
      return <StackPanel />;
    case "light":
      return <LightPanel />;
    case "run":
      return <RunPanel shotId={shotId} />;
    case "check":
      return <CheckPanel shotId={shotId} />;
    case "log":
      return <LogPanel shotId={shotId} />;
  }
}
