/** The unit in which lengths are spoken and typed. */
export type Units = "mm" | "in";
