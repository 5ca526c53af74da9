import boundaries from "eslint-plugin-boundaries";
import tseslint from "typescript-eslint";

const allow = (from, ...to) => ({
  from: { element: { type: from } },
  allow: to.map((type) => ({ to: { element: { type } } })),
});

export default tseslint.config(
  { ignores: ["node_modules", ".next", "data", "public", "next-env.d.ts", "src/io/pdfmake.d.ts"] },
  ...tseslint.configs.recommended,
  {
    files: ["**/*.{ts,tsx,mts}"],
    plugins: { boundaries },
    settings: {
      "import/resolver": { typescript: { alwaysTryTypes: true } },
      "boundaries/elements": [
        { type: "core", pattern: "src/core/**" },
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
            allow("core", "core"),
            allow("kernel", "core", "kernel"),
            allow("io", "core", "io"),
            allow("server", "core", "io", "kernel", "server"),
            allow("ui", "core", "io", "kernel", "ui"),
            allow("cli", "core", "io", "kernel", "cli"),
            allow("app", "ui", "server", "core", "io", "app"),
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
  {
    files: ["src/**"],
    ignores: ["src/core/rows/**", "**/*.test.ts"],
    rules: {
      "no-restricted-syntax": [
        "error",
        {
          selector: "Literal[value=/^(cut|leave)[A-Z][A-Za-z]+$/]",
          message: "Nobody asks a row for the name of its kind: take its feature or its traits (core/rows/feature.ts).",
        },
      ],
    },
  },
  {
    files: ["src/ui/**", "app/**"],
    rules: {
      "no-restricted-syntax": [
        "error",
        {
          selector: "JSXOpeningElement[name.name=/^(button|input|select|textarea)$/]",
          message: "Controls are Ant Design's (src/ui/fields, docs/extend.md).",
        },
        {
          selector: "CallExpression[callee.name=/^use(Bench|Job)$/][arguments.length=0]",
          message: "Take what is needed with a selector: a whole store re-renders with every change.",
        },
        {
          selector: "Literal[value=/^(cut|leave)[A-Z][A-Za-z]+$/]",
          message: "Nobody asks a row for the name of its kind: take its feature or its traits (core/rows/feature.ts).",
        },
      ],
    },
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
