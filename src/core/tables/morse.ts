import { table } from "./table";

/** A Morse taper: diameter at the gauge plane, change of diameter over length, usual depth of a socket. Lengths mm. */
interface MorseTaper {
  number: number;
  gauge: number;
  taper: number;
  depth: number;
}

const row = (number: number, gauge: number, ratio: number, depth: number): MorseTaper => ({
  number,
  gauge,
  taper: 1 / ratio,
  depth,
});

export const morseTapers = table<MorseTaper>({
  source: "ISO 296 gauge diameters and tapers (7 by older national standards), socket depths by practice; from memory",
  checked: "half angles of 2 and 5 against handbooks in tables.test.ts",
  rows: [
    row(0, 9.045, 19.212, 52),
    row(1, 12.065, 20.047, 56),
    row(2, 17.78, 20.02, 67),
    row(3, 23.825, 19.922, 84),
    row(4, 31.267, 19.254, 107),
    row(5, 44.399, 19.002, 135),
    row(6, 63.348, 19.18, 188),
    row(7, 83.058, 19.231, 258),
  ],
});
