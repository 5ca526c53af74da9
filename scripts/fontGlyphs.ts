// Reads a font file: the outline, advance and kerning of every printable letter of Latin-1.
import { readFileSync } from "node:fs";
// @ts-expect-error the package ships no types; under Node it is one default
import opentype from "opentype.js";

export const fontFiles = {
  plain: "node_modules/@fontsource/barlow/files/barlow-latin-500-normal.woff",
  mono: "node_modules/@fontsource/spline-sans-mono/files/spline-sans-mono-latin-400-normal.woff",
};
interface Glyph {
  advanceWidth: number;
  path: { commands: { type: string; x?: number; y?: number; x1?: number; y1?: number; x2?: number; y2?: number }[] };
  index: number;
}
interface Face {
  unitsPerEm: number;
  tables: { os2: { sCapHeight: number } };
  names: { fontFamily?: { en: string }; windows?: { fontFamily?: { en: string } } };
  charToGlyph(c: string): Glyph;
  getKerningValue(a: Glyph, b: Glyph): number;
}

export function fontGlyphs(file: string) {
  const b = readFileSync(file);
  const font = (opentype as { parse(x: ArrayBuffer): Face }).parse(
    b.buffer.slice(b.byteOffset, b.byteOffset + b.byteLength) as ArrayBuffer,
  );
  const letters = [...Array.from({ length: 95 }, (_, i) => 32 + i), ...Array.from({ length: 95 }, (_, i) => 161 + i)]
    .map((c) => String.fromCharCode(c))
    .filter((c) => c === " " || font.charToGlyph(c).index > 0);
  const glyphs: Record<string, [number, string]> = {},
    kern: Record<string, number> = {};
  for (const c of letters) {
    const g = font.charToGlyph(c);
    glyphs[c] = [
      g.advanceWidth,
      g.path.commands
        .map((k) =>
          k.type === "Z"
            ? "Z"
            : `${k.type}${[k.x1, k.y1, k.x2, k.y2, k.x, k.y]
                .filter((v) => v !== undefined)
                .map((v) => Number(v!.toFixed(1)))
                .join(" ")}`,
        )
        .join(""),
    ];
  }
  const ascii = letters.filter((c) => c > " " && c < "\x7f");
  for (const a of ascii)
    for (const c of ascii) {
      const by = font.getKerningValue(font.charToGlyph(a), font.charToGlyph(c));
      if (by) kern[a + c] = by;
    }
  const os2 = font.tables.os2.sCapHeight;
  return {
    family: font.names.windows?.fontFamily?.en ?? font.names.fontFamily?.en ?? "font",
    unitsPerEm: font.unitsPerEm,
    capHeight: os2,
    glyphs,
    kern,
  };
}
