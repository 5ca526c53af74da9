// Takes the letters of the shipped fonts as outlines into core/tables/glyphs: run it again when a font changes (node
// --import tsx scripts/fontOutlines.mts).
import { writeFileSync } from "node:fs";
import path from "node:path";
import { fontGlyphs, fontFiles } from "./fontGlyphs";

const root = path.resolve(import.meta.dirname, "..");
for (const [name, file] of Object.entries(fontFiles)) {
  const g = fontGlyphs(path.join(root, file));
  const glyphs = Object.entries(g.glyphs)
    .map(([c, [advance, d]]) => `    ${JSON.stringify(c)}: [${advance}, '${d}'],`)
    .join("\n");
  const kern = Object.entries(g.kern)
    .map(([pair, by]) => `${JSON.stringify(pair)}: ${by}`)
    .join(", ");
  writeFileSync(
    path.join(root, `src/core/tables/glyphs/${name}.ts`),
    `import type { Font } from './font';

/**
 * Letters of ${g.family}, made by scripts/fontOutlines.mts from the shipped font file (SIL Open Font License 1.1).
 * Units of ${g.unitsPerEm} to the em.
 */
export const ${name}: Font = {
  source: '${g.family}, SIL Open Font License 1.1', unitsPerEm: ${g.unitsPerEm}, capHeight: ${g.capHeight},
  glyphs: {
${glyphs}
  },
  kern: { ${kern} },
};
`,
  );
  process.stderr.write(`${name}: ${Object.keys(g.glyphs).length} letters, ${Object.keys(g.kern).length} pairs\n`);
}
