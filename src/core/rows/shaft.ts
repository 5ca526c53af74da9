import type { Clause } from "../grammar/grammar";
import { inCallout } from "../number";

/** `ON SHAFT OF n`: the round outside of a row. */
export const shaftClause: Clause = {
  expected: "ON SHAFT OF and a row",
  required: true,
  starts: (r) => r.sees("ON", "SHAFT"),
  read(r, row, names) {
    r.take("ON", "SHAFT");
    r.want("OF");
    row.shaft = names.idOf(r.whole("the number of a row"));
  },
  write: (row, names) => `ON SHAFT OF ${names.numberOf(row.shaft)}`,
  numbers: () => [],
};

/** `START s`: below the top of the round. */
export const startOnShaft: Clause = {
  expected: "START",
  starts: (r) => r.sees("START"),
  read(r, row) {
    r.want("START");
    row.start = r.number("start", "a distance below the top of the round");
  },
  write: (row) => (row.start === undefined ? "" : `START ${inCallout(row.start)}`),
  numbers: (row) =>
    row.start === undefined
      ? []
      : [{ path: "start", label: "Start below the top", quantity: "offset", means: "depth", text: row.start }],
};
