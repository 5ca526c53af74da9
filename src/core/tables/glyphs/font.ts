/** A font as outlines: letters with their advance and path (M, L, Q, C, Z in font units, y up), and kerning of pairs. */
export interface Font { source: string; unitsPerEm: number; capHeight: number; glyphs: Record<string, [advance: number, path: string]>; kern: Record<string, number> }
