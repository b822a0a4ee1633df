/** The nine stations of the order of work. */
import { store, stored } from "../look/storage";

export const STATIONS = [
  { id: "subject", title: "Subject" },
  { id: "reach", title: "Reach" },
  { id: "aperture", title: "Aperture" },
  { id: "plane", title: "Plane" },
  { id: "stack", title: "Stack" },
  { id: "light", title: "Light" },
  { id: "run", title: "Run" },
  { id: "check", title: "Check" },
  { id: "log", title: "Log" },
] as const;

export type StationId = (typeof STATIONS)[number]["id"];

export function isStation(text: string | undefined): text is StationId {
  return STATIONS.some((station) => station.id === text);
}

const keyOf = (shotId: string) => `just-plane.station.${shotId}`;

/** The station at which a shot was last worked on in this browser; the first one for a shot not opened yet. */
export function lastStation(shotId: string): StationId {
  const kept = stored("local", keyOf(shotId)) ?? undefined;
  return isStation(kept) ? kept : "subject";
}

export function keepStation(shotId: string, station: StationId) {
  store("local", keyOf(shotId), station);
}

/** The station at which a field of the shot is set. */
export function stationOf(field: string): StationId | null {
  if (/^\/(subject|picture|sharp|name|heading|notes)/.test(field)) return "subject";
  if (/^\/(body|crop_mode|rig|measured|framing|back_off_factor)/.test(field)) return "reach";
  if (/^\/(aperture|focus_behind_nearest_mm)/.test(field)) return "aperture";
  if (field.startsWith("/plane")) return "plane";
  if (field.startsWith("/stack")) return "stack";
  if (/^\/(light|on_set|steadiness)/.test(field)) return "light";
  if (field.startsWith("/run")) return "run";
  return null;
}
