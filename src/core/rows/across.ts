import { choice, marked, type Part } from "../grammar/grammar";
import type { Field } from "./kind";

/** `AF a` across flats, or `AC c` across corners: the circle through them. */
export const acrossParts = (kindPath: string, sizePath: string): Part =>
  choice(kindPath, {
    AF: marked("AF", sizePath, "Across flats", "length", { bare: true, means: "across" }),
    AC: marked("AC", sizePath, "Across corners", "length", { bare: true, means: "across" }),
  });

export const acrossField = (kindPath: string, _sizePath: string): Field => ({
  field: "choice",
  path: kindPath,
  label: "Measured",
  options: [
    { value: "AF", label: "across flats", set: { [kindPath]: "AF" } },
    { value: "AC", label: "across corners", set: { [kindPath]: "AC" } },
  ],
});
