import { createRequire } from "node:module";
import { fonts, LATIN, runs } from "./style";

interface Face {
  hasGlyphForCodePoint(code: number): boolean;
}
// What the PDF library itself reads fonts with.
const fontkit = createRequire(`${process.cwd()}/package.json`)("fontkit") as { openSync(file: string): Face };
const faces = [...Object.values(fonts.Text), ...Object.values(fonts.Figures)].map((file) => fontkit.openSync(file));
const isText = new RegExp(`^[${LATIN}]$`);

it("takes for the text faces only signs that each of them has", () => {
  const missing: string[] = [];
  for (let code = 0x20; code < 0x3000; code++) {
    const isControl = code >= 0x7f && code <= 0xa0;
    if (isControl || !isText.test(String.fromCharCode(code))) continue;
    if (!faces.every((f) => f.hasGlyphForCodePoint(code))) missing.push(code.toString(16));
  }
  expect(missing).toEqual([]);
});

it("sets drawing signs in the symbol face, which has them", () => {
  const symbols = fontkit.openSync(fonts.Symbols.normal);
  const set = runs("8X ⌀.266 ↧ .25 → 3");
  expect(set.map((r) => [r.text, r.font ?? "text"])).toEqual([
    ["8X ", "text"],
    ["⌀", "Symbols"],
    [".266 ", "text"],
    ["↧", "Symbols"],
    [" .25 ", "text"],
    ["→", "Symbols"],
    [" 3", "text"],
  ]);
  for (const sign of "⌀↧→") expect([sign, symbols.hasGlyphForCodePoint(sign.codePointAt(0)!)]).toEqual([sign, true]);
});
