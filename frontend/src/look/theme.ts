/** The one theme file: ink on warm paper by day, a dark set that does not light the table. */

const paper = {
  name: "paper",
  ground: "#f4efe6",
  surface: "#fcfaf5",
  raised: "#e3ece6",
  ink: "#17313a",
  soft: "#526366",
  line: "#d5cdbd",
  strong: "#17313a",
  onStrong: "#fcfaf5",
  subject: "#3f6b6c",
  subjectFill: "#b4c7c4",
  sharp: "#efb22a",
  sharpEdge: "#8f6400",
  sharpFill: "#f2d693",
  trouble: "#a63a2e",
  focusRing: "#17313a",
};

export type Theme = typeof paper;

const dark: Theme = {
  name: "dark",
  ground: "#111718",
  surface: "#1b2324",
  raised: "#21383a",
  ink: "#dde6e4",
  soft: "#94a5a5",
  line: "#324042",
  strong: "#dde6e4",
  onStrong: "#111718",
  subject: "#7fa9a8",
  subjectFill: "#2c4447",
  sharp: "#e3a21a",
  sharpEdge: "#f3cf7c",
  sharpFill: "#5c4716",
  trouble: "#f0806f",
  focusRing: "#dde6e4",
};

export const themes = { paper, dark };

export const fonts = {
  text: "'Schibsted Grotesk Variable', system-ui, sans-serif",
  figures: "'Spline Sans Mono Variable', ui-monospace, monospace",
};
