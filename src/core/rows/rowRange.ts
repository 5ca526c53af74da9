import { z } from "zod";
import type { Part } from "../grammar/grammar";
import { rowRef } from "./planeRef";

/** The rows a repeat or a mirror takes, one after the other. */
export const rowList = z.array(rowRef).min(1).max(200);

/** `3`, `3-5`, `2, 4-6`. */
export const rowsPart: Part = {
  expected: "the numbers of rows, such as 3 or 3-5",
  starts: (r) => /^\d/.test(r.text.slice((r.skip(), r.pos))),
  read(r, row, names) {
    row.rows = [];
    do {
      r.skip();
      const at = r.pos;
      const first = r.whole("the number of a row");
      const range = /^\s*-\s*(?=\d)/.exec(r.text.slice(r.pos));
      r.pos += range?.[0].length ?? 0;
      const last = range ? r.whole("the number of a row") : first;
      if (last < first || last - first >= 200)
        r.fail("the first row before the last", `rows ${first}-${last} are none`, at);
      for (let n = first; n <= last; n++) row.rows.push(names.idOf(n));
      r.skip();
    } while (r.text[r.pos] === "," && ++r.pos);
  },
  write(row, names) {
    const numbers = (row.rows as string[]).map((id) => Number(names.numberOf(id)));
    const runs: [number, number][] = [];
    for (const n of numbers) {
      const last = runs[runs.length - 1];
      if (last && n === last[1] + 1) last[1] = n;
      else runs.push([n, n]);
    }
    return runs.map(([a, b]) => (a === b ? `${a}` : `${a}-${b}`)).join(", ");
  },
  numbers: () => [],
};
