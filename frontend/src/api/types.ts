/** Short names for the generated types of the contract. Nothing here is kept by hand but the names. */
import type { components } from "./schema";

type Schemas = components["schemas"];

export type Shot = Schemas["Shot"];
export type Body = Schemas["Body"];
export type Lens = Schemas["Lens"];
export type Plan = Schemas["Plan"];
export type Reach = Schemas["Reach"];
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
export type Shelf = Schemas["Shelf"];
