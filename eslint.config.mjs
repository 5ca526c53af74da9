import boundaries from "eslint-plugin-boundaries";
import tseslint from "typescript-eslint";

const allow = (from, ...to) => ({
  from: { element: { type: from } },
  allow: to.map((type) => ({ to: { element: { type } } })),
});

/** The core's folders, from what stands on nothing to what stands on everything: each takes only from those before it. */
const core = [
  "base",
  "geometry",
  "number",
  "grammar",
  "tables",
  "outline",
  "rows",
  "job",
  "callout",
  "balloons",
  "engine",
  "stock",
  "print",
  "hold",
  "paths",
  "findings",
  "evaluate",
  "setups",
  "mismatch",
  "reckon",
];
const coreTypes = core.map((folder) => `core-${folder}`);

// What is said once and asked of nobody else.
const meaning = [
  {
    selector: "Literal[value=/^(cut|leave)[A-Z][A-Za-z]+$/]",
    message: "Nobody asks a row for the name of its kind: take its feature or its traits (core/rows/feature.ts).",
  },
  {
    selector: "BinaryExpression[left.property.name='unit'][right.value=/^(in|mm)$/]",
    message: "Nobody asks whether it is inch: take what follows from the unit (core/number/unit.ts).",
  },
  {
    selector:
      "CallExpression[callee.property.name=/^(startsWith|endsWith|includes)$/][callee.object.property.name='message']",
    message: "Nothing is decided by a sentence: give the problem a code (core/base/result.ts).",
  },
];
const types = [
  {
    selector: "TSAsExpression > TSNeverKeyword",
    message: "`as never` switches the types off: type what is there.",
  },
  {
    selector: "TSAsExpression > TSAsExpression > TSUnknownKeyword",
    message: "`as unknown as` switches the types off: type what is there.",
  },
];
const controls = [
  {
    selector: "JSXOpeningElement[name.name=/^(button|input|select|textarea)$/]",
    message: "Controls are Ant Design's (src/ui/fields, docs/extend.md).",
  },
  {
    selector: "CallExpression[callee.name=/^use(Bench|Job)$/][arguments.length=0]",
    message: "Take what is needed with a selector: a whole store re-renders with every change.",
  },
];

export default tseslint.config(
  { ignores: ["node_modules", ".next", "data", "public", "next-env.d.ts", "src/io/pdfmake.d.ts"] },
  ...tseslint.configs.recommended,
  {
    files: ["**/*.{ts,tsx,mts}"],
    plugins: { boundaries },
    settings: {
      "import/resolver": { typescript: { alwaysTryTypes: true } },
      "boundaries/elements": [
        ...core.map((folder) => ({ type: `core-${folder}`, pattern: `src/core/${folder}/**` })),
        { type: "kernel", pattern: "src/kernel/**" },
        { type: "io", pattern: "src/io/**" },
        { type: "server", pattern: "src/server/**" },
        { type: "ui", pattern: "src/ui/**" },
        { type: "cli", pattern: "src/cli/**" },
        { type: "app", pattern: "app/**" },
      ],
    },
    rules: {
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
      // Imports go one way only (docs/map.md).
      "boundaries/dependencies": [
        "error",
        {
          default: "disallow",
          policies: [
            ...core.map((folder, i) => allow(`core-${folder}`, ...coreTypes.slice(0, i + 1))),
            allow("kernel", ...coreTypes, "kernel"),
            allow("io", ...coreTypes, "io"),
            allow("server", ...coreTypes, "io", "kernel", "server"),
            allow("ui", ...coreTypes, "io", "kernel", "ui"),
            allow("cli", ...coreTypes, "io", "kernel", "cli"),
            allow("app", "ui", "server", ...coreTypes, "io", "app"),
          ],
        },
      ],
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            {
              group: ["replicad-opencascadejs", "@electric-sql/pglite"],
              message: "Only kernel/ knows the solid library, only server/ the database.",
            },
          ],
        },
      ],
    },
  },
  { files: ["src/kernel/**", "src/server/**"], rules: { "no-restricted-imports": "off" } },
  // What is longer is split by meaning; a component's markup counts too, and is given more room.
  {
    files: ["src/**", "app/**"],
    ignores: ["**/*.test.ts"],
    rules: { "max-lines-per-function": ["error", 60] },
  },
  {
    files: ["src/**"],
    ignores: ["src/core/rows/**", "**/*.test.ts"],
    rules: { "no-restricted-syntax": ["error", ...meaning, ...types] },
  },
  {
    files: ["src/ui/**", "app/**"],
    ignores: ["**/*.test.ts"],
    rules: { "no-restricted-syntax": ["error", ...controls, ...meaning, ...types] },
  },
  {
    files: ["**/*.test.ts", "src/core/rows/**", "e2e/**", "tests/**", "scripts/**"],
    rules: { "no-restricted-syntax": ["error", ...types] },
  },
  // Tests may look at anything: they stand beside what they test.
  {
    files: ["src/core/**"],
    ignores: ["**/*.test.ts"],
    rules: {
      "no-restricted-imports": [
        "error",
        {
          patterns: [
            "react",
            "react-dom",
            "next",
            "next/*",
            "antd",
            "three",
            "three/*",
            "node:*",
            "fs",
            "path",
            "replicad-opencascadejs",
            "@electric-sql/*",
            "zustand",
            "comlink",
          ],
        },
      ],
    },
  },
  { files: ["**/*.test.ts"], rules: { "boundaries/dependencies": "off" } },
);
