import js from "@eslint/js";
import a11y from "eslint-plugin-jsx-a11y";
import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

const views = [
  "bench",
  "box",
  "class",
  "compare",
  "journal",
  "log",
  "pairing",
  "path",
  "sheets",
  "showing",
  "sitting",
  "system",
  "wheel",
  "who",
];

/** What stands in a folder may not import these other folders of src. */
const without = (folder, ...closed) => ({
  files: [`src/${folder}/**`],
  rules: {
    "no-restricted-imports": [
      "error",
      {
        patterns: [
          {
            group: closed.map((other) => `../${other}/*`),
            message: `src/${folder} stands below them, or beside them: see the map of the house in README.md.`,
          },
        ],
      },
    ],
  },
});

export default tseslint.config(
  { ignores: ["dist", "src/api/schema.d.ts"] },
  js.configs.recommended,
  ...tseslint.configs.recommendedTypeChecked,
  hooks.configs.flat["recommended-latest"],
  a11y.flatConfigs.recommended,
  {
    languageOptions: {
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
  },
  // A panel that somebody opens takes the focus with it; nothing takes it unasked.
  { rules: { "jsx-a11y/no-autofocus": "off" } },
  without("drawing", "api", "app", "parts", ...views),
  without("api", "app", "drawing", "parts", ...views),
  without("parts", "app", ...views),
  ...views.map((view) => without(view, ...views.filter((other) => other !== view))),
);
