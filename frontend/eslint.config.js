import { readdirSync } from "node:fs";
import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import ts from "typescript-eslint";

/** The rooms of src, innermost first. A file imports from its own room and from those before it, never back up. */
const ROOMS = ["units", "look", "api", "controls", "drawing", "shot", "gear", "features", "app"];

/** Inside features each folder is its own room; only the bench, which puts the stations together, may use the others. */
const FEATURES = readdirSync(new URL("./src/features", import.meta.url)).filter((name) => name !== "bench");

const mayNotImport = (names, folders, words) => ({
  files: folders.flatMap((folder) => [`src/${folder}/**/*.ts`, `src/${folder}/**/*.tsx`]),
  rules: {
    "no-restricted-imports": [
      "error",
      { patterns: [{ group: names.flatMap((name) => [`**/${name}/**`, `**/${name}`]), message: words }] },
    ],
  },
});

export default ts.config(
  { ignores: ["src/api/schema.ts"] },
  js.configs.recommended,
  ...ts.configs.strict,
  hooks.configs.flat["recommended-latest"],
  {
    files: ["src/**/*.tsx"],
    rules: { "max-lines-per-function": ["error", { max: 120, skipBlankLines: true, skipComments: true }] },
  },
  ...ROOMS.slice(0, -2).map((room, place) =>
    mayNotImport(ROOMS.slice(place + 1), [room], `${room} is an inner room: it imports no outer one.`),
  ),
  ...FEATURES.map((feature) =>
    mayNotImport(
      ["app", "bench", ...FEATURES.filter((other) => other !== feature)]
        .map((name) => `features/${name}`.replace("features/app", "app"))
        .concat(["bench", ...FEATURES.filter((other) => other !== feature)].map((name) => `../${name}`)),
      [`features/${feature}`],
      "A feature uses no other feature: what two need belongs into src/shot, src/gear, src/controls or src/drawing.",
    ),
  ),
  mayNotImport(["app"], ["features/bench"], "Only main.tsx and app itself know the app."),
);
