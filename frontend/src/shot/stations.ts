/** The nine stations of the order of work. Those not built yet stand on the tape all the same, and say so. */

export const STATIONS = [
  { id: "subject", title: "Subject", built: true },
  { id: "reach", title: "Reach", built: true },
  { id: "aperture", title: "Aperture", built: true },
  { id: "plane", title: "Plane", built: true },
  { id: "stack", title: "Stack", built: true },
  { id: "light", title: "Light", built: true },
  { id: "run", title: "Run", built: true },
  { id: "check", title: "Check", built: true },
  { id: "log", title: "Log", built: false },
] as const;

export type StationId = (typeof STATIONS)[number]["id"];

export function isStation(text: string | undefined): text is StationId {
  return STATIONS.some((station) => station.id === text);
}

/** The station at which a field of the shot is set. */
export function stationOf(field: string): StationId | null {
  if (/^\/(subject|picture|sharp|name|notes)/.test(field)) return "subject";
  if (/^\/(body|crop_mode|rig|measured|framing)/.test(field)) return "reach";
  if (/^\/(aperture|focus_behind_nearest_mm)/.test(field)) return "aperture";
  if (field.startsWith("/plane")) return "plane";
  if (field.startsWith("/stack")) return "stack";
  if (/^\/(light|on_set|steadiness)/.test(field)) return "light";
  if (field.startsWith("/run")) return "run";
  return null;
}
