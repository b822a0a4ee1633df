/** Short names for the generated types of the contract. Nothing here is kept by hand but the names. */
import type { components } from "./schema";

type Schemas = components["schemas"];

export type Shot = Schemas["Shot"];
export type Body = Schemas["Body"];
export type Placed = Schemas["Placed"];
export type Kit = Schemas["Kit"];
export type KitPiece = Schemas["KitPiece"];
export type Gear = KitPiece["gear"];
export type ChainGear = Placed["gear"];
export type KeptKit = Schemas["KeptKitAnswer"];
export type FoundRig = Schemas["FoundRig"];
export type SearchAsked = Schemas["SearchAsked"];
export type RulerAnswer = Schemas["RulerAnswer"];
export type SizeAnswer = Schemas["SizeAnswer"];
export type TwoTubesAnswer = Schemas["TwoTubesAnswer"];
export type Piece = Schemas["Piece"];
export type Plan = Schemas["Plan"];
export type Reach = Schemas["Reach"];
export type PlaneSection = Schemas["PlaneSection"];
export type PointAnswer = Schemas["PointAnswer"];
export type Point = Schemas["Point"];
export type BlurMap = Schemas["BlurMap"];
export type PlaneLine = Schemas["PlaneLine"];
export type WayAnswer = Schemas["WayAnswer"];
export type WayId = WayAnswer["id"];
export type ApertureAnswer = Schemas["ApertureAnswer"];
export type StopAnswer = Schemas["StopAnswer"];
export type ThroughFocus = Schemas["ThroughFocus"];
export type Finding = Schemas["Finding"];
export type FieldProblem = Schemas["FieldProblem"];
export type Problem = Schemas["Problem"];
export type KeptShot = Schemas["KeptShotAnswer"];
export type ShotLine = Schemas["ShotLine"];
