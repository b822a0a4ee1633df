/** The drills in the order in which they are best learned, in words. */
import type { DrillKind } from "../../api/types";

export const DRILLS: readonly { kind: DrillKind; title: string; words: string }[] = [
  {
    kind: "magnifier",
    title: "Read the magnifier",
    words: "Which of five is the sharpest, closer together each time.",
  },
  {
    kind: "stop",
    title: "Choose the stop",
    words: "How far to stop down before light itself takes more than it gives.",
  },
  {
    kind: "ends",
    title: "First and last frame",
    words: "Where a stack begins and ends: too late is lost, too early is only time.",
  },
  {
    kind: "rock",
    title: "Focus by rocking",
    words: "The press comes late: lead it.",
  },
  {
    kind: "tilt",
    title: "Tilt on one axis",
    words: "Focus on the near edge, tilt until the far one is sharp, focus near again.",
  },
  {
    kind: "tilt_and_turn",
    title: "Tilt and turn",
    words: "The page lies askew: first which way, then how far.",
  },
  {
    kind: "limits",
    title: "A lens with limits",
    words: "Too little tilt, about the wrong point: what can be had all the same.",
  },
];
