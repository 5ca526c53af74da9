import type { z } from "zod";
import type { Reader } from "../../grammar/reader";
import type { Side } from "../../geometry/vec";
import type { NumberText } from "../../number";

/** Which list of a merchant a size is taken from. */
export type UsualSizes = "barWidth" | "plateThickness" | "roundDiameter";

/** A section of a bar as its numbers come out: how wide and deep it is, and what bounds it besides its box. Lengths mm. */
export interface BarSection {
  x: number;
  y: number;
  area: number;
  /** A round outside; flats all round of a hexagon; a bore. */
  diameter?: number;
  flats?: number;
  bore?: number;
}

/** What a part needs of its stock, with something to clean up, and how sizes are rounded to what is sold. */
export interface Need {
  x: number;
  y: number;
  z: number;
  /** Diameter of the smallest round it fits in, and of the bore through it that is there anyway. */
  round: number;
  bore: number;
  over(need: number, list: UsualSizes): NumberText;
  /** The largest size that is not over one. */
  under(size: number): NumberText;
  sawn(need: number): NumberText;
}

/** All that is known of a form of stock: one file a form, and one line in the registry. */
export interface StockForm<S extends { shape: string }> {
  shape: S["shape"];
  label: string;
  /** What a card calls it; the first is canonical. */
  words: string[];
  schema: z.ZodObject & z.ZodType<S>;
  fields: { key: string; label: string; usual?: UsualSizes }[];
  read(r: Reader): S;
  write(s: S): string;
  /** What it is cut across; null for a solid that came as a file. */
  section: ((n: Record<string, number>) => BarSection) | null;
  /** The smallest that a part fits in; null where it is none for any part. */
  propose(need: Need): S | null;
  /** Faces a saw leaves. */
  sawn: Side[];
}
