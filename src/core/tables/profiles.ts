import { INCH } from "../number";
import { sheet, table } from "./table";

/** A length of stock that a merchant lists: its form and its sizes, mm. */
export interface Profile {
  name: string;
  form: "square bar" | "hexagon bar" | "round tube" | "square tube" | "angle" | "channel";
  width: number;
  /** Wall or thickness of a hollow or open form. */
  wall: number | null;
}

const solid = (form: Profile["form"], unit: number, sign: string, sizes: string): Profile[] =>
  sizes.split(" ").map((s) => ({
    name: `${form} ${s}${sign}`,
    form,
    width: sheet(["w"], unit, `w ${s}`)[0].w!,
    wall: null,
  }));
const walled = (form: Profile["form"], unit: number, sign: string, sizes: string): Profile[] =>
  sizes.split(" ").map((s) => {
    const [w, t] = s.split("x");
    const row = sheet(["w", "t"], unit, `w ${w} ${t}`)[0];
    return { name: `${form} ${w} x ${t}${sign}`, form, width: row.w!, wall: row.t };
  });

export const profiles = table<Profile>({
  source: "usual merchant sizes; common practice, no source",
  checked: "every wall under half its width, in book.test.ts",
  rows: [
    ...solid("square bar", 1, "", "6 8 10 12 14 15 16 18 20 22 25 30 35 40 45 50 60 70 80 100"),
    ...solid("square bar", INCH, " in", "1/4 3/8 1/2 5/8 3/4 1 1-1/4 1-1/2 2 2-1/2 3 4"),
    ...solid("hexagon bar", 1, "", "6 7 8 10 12 13 14 17 19 22 24 27 30 32 36 41 46 50 55 60"),
    ...solid("hexagon bar", INCH, " in", "1/4 5/16 3/8 7/16 1/2 9/16 5/8 3/4 7/8 1 1-1/8 1-1/4 1-1/2 1-3/4 2"),
    ...walled("round tube", 1, "", "10x1 12x1.5 16x2 20x2 25x2.5 30x3 35x3 40x4 50x5 60x5 70x5 80x5 100x10 120x10"),
    ...walled("round tube", INCH, " in", "1/2x.065 3/4x.083 1x.120 1-1/4x.120 1-1/2x.120 2x1/4 2-1/2x1/4 3x1/4 4x1/4"),
    ...walled("square tube", 1, "", "20x2 25x2 30x2 30x3 40x3 40x4 50x3 50x5 60x4 80x5 100x5 100x8"),
    ...walled("square tube", INCH, " in", "1/2x1/16 3/4x1/16 1x1/16 1x1/8 1-1/2x1/8 2x1/8 2x1/4 3x1/4 4x1/4"),
    ...walled("angle", 1, "", "20x3 25x3 30x3 40x4 50x5 60x6 80x8 100x10"),
    ...walled("angle", INCH, " in", "3/4x1/8 1x1/8 1-1/2x1/8 1-1/2x1/4 2x1/4 3x1/4 4x3/8"),
    ...walled("channel", 1, "", "30x4 40x4 50x5 60x6 80x6 100x6"),
    ...walled("channel", INCH, " in", "1x1/8 1-1/2x1/8 2x1/8 3x1/4 4x1/4"),
  ],
});
