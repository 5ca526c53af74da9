import type { Clause } from "../grammar/grammar";
import { planeClause } from "./places";

/** A leave row may stand on a plane of what is there: `ON TOP`, `ON TOP OF 1`, `ON FLOOR OF 2`. Without it, on Z0. */
export const standingClause: Clause = {
  ...planeClause,
  write(row, names) {
    if (row.plane === undefined) return "";
    return row.plane.on === "top" ? "ON TOP" : planeClause.write(row, names);
  },
};
