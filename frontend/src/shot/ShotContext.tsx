import { createContext, useContext } from "react";
import type { Finding, Plan, Shot, WayAnswer } from "../api/types";
import type { ShotEditing } from "./useShot";

export interface OnTheBench {
  shotId: string;
  shot: Shot;
  /** The shot as drawn: the draft, or the last one that worked while the draft is refused. */
  drawn: Shot;
  plan: Plan | null;
  edit: ShotEditing["edit"];
  /** The sentence to show at a field (JSON pointer), from the contract or from the plan. */
  problemAt: (field: string) => string | undefined;
  cautionAt: (field: string) => string | undefined;
  /** The way looked at: picked, else the one decided on, else the recommended one. */
  way: WayAnswer | null;
  lookAt: (way: WayAnswer["id"]) => void;
  /** The point taken hold of at Plane, by its id. */
  point: string | null;
  selectPoint: (id: string | null) => void;
}

export const BenchContext = createContext<OnTheBench | null>(null);

export function useBench(): OnTheBench {
  const bench = useContext(BenchContext);
  if (bench === null) throw new Error("useBench needs a ShotPage around it");
  return bench;
}

export function sentence(finding: Pick<Finding, "message" | "remedy">): string {
  return [finding.message, finding.remedy].filter(Boolean).join(" ");
}
