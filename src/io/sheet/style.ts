import path from "node:path";

/** The sheet's inks: the interface's, as they print. */
export const ink = { line: "#22262b", soft: "#5b5f63", rule: "#a99c80", red: "#c8371f", dye: "#22389c" };

const fontFile = (family: string, file: string) =>
  path.join(process.cwd(), "node_modules", "@fontsource", family, "files", file);
export const fonts = {
  Text: {
    normal: fontFile("barlow", "barlow-latin-400-normal.woff"),
    bold: fontFile("barlow", "barlow-latin-600-normal.woff"),
    italics: fontFile("barlow", "barlow-latin-500-italic.woff"),
    bolditalics: fontFile("barlow", "barlow-latin-600-normal.woff"),
  },
  Figures: {
    normal: fontFile("spline-sans-mono", "spline-sans-mono-latin-400-normal.woff"),
    bold: fontFile("spline-sans-mono", "spline-sans-mono-latin-500-normal.woff"),
  },
  Symbols: { normal: fontFile("noto-sans-math", "noto-sans-math-latin-400-normal.woff") },
};

/** A piece of the page as the PDF library takes it. */
export type Piece = Record<string, unknown>;

/**
 * What every text face here has, read off their files (a test does it again): Latin letters, dashes, quotation marks,
 * bullet, ellipsis, the euro, trade mark, minus and division signs.
 */
export const LATIN =
  "\\u0000-\\u00ff\\u2013\\u2014\\u2018-\\u201a\\u201c-\\u201e\\u2022\\u2026\\u2039\\u203a\\u2044\\u20ac\\u2122\\u2212\\u2215";
const OTHERS = new RegExp(`([^${LATIN}]+)`);

/** Drawing symbols are missing from text faces: they are set in the symbol face, run by run. */
export const runs = (text: string, style: Piece = {}): Piece[] =>
  text
    .split(OTHERS)
    .filter(Boolean)
    .map((t) => ({
      text: t,
      ...style,
      ...(OTHERS.test(t) ? { font: "Symbols", bold: false, italics: false } : {}),
    }));

export const label = (t: string, more: Piece = {}): Piece => ({
  text: runs(t.toUpperCase()),
  fontSize: 6.5,
  color: ink.soft,
  characterSpacing: 0.5,
  ...more,
});
/** Figures in a column, to the right. */
export const figures = (t: string, fontSize = 7.5): Piece => ({
  text: t,
  font: "Figures",
  fontSize,
  alignment: "right",
});
export const quiet = (t: string, fontSize = 8): Piece => ({ text: runs(t), color: ink.soft, fontSize });
/** What the red pencil says. */
export const red = (t: string, fontSize = 8): Piece => ({ text: runs(t), color: ink.red, italics: true, fontSize });

export const ruled = {
  hLineWidth: () => 0.5,
  vLineWidth: () => 0,
  hLineColor: () => ink.rule,
  paddingLeft: () => 3,
  paddingRight: () => 3,
  paddingTop: () => 1.5,
  paddingBottom: () => 1.5,
};
export const boxed = {
  hLineWidth: () => 1,
  vLineWidth: () => 0.5,
  hLineColor: () => ink.line,
  vLineColor: () => ink.rule,
};
