import { readCard } from "@/core/callout";
import { steps } from "../store/benchStore";
import { stepNote } from "./stepNotes";

const { job } = readCard(
  ["UNIT in", "STOCK PLATE 4 X 3 X 1", "#1 .375 DEEP", "LEAVE BLOCK 4 X 3 X 1", "CUT ⌀.25 DEEP #1"].join("\n"),
);
type Figures = NonNullable<Parameters<typeof stepNote>[1]["evaluation"]>;
const nothing: Figures = { findings: [], ledger: [], checks: [], stockProblem: null, solved: { rows: [] } };
const standing = (figures: Partial<Figures>, paths = 0) => ({ job, paths, evaluation: { ...nothing, ...figures } });
const stop = (rule: string) => ({ rule, severity: "stop" as const });
const entries = (...states: string[]) => states.map((state) => ({ state }));

describe("what stands under a step", () => {
  it("is how far the job is, before anything is worked out", () => {
    const notes = steps.map((s) => stepNote(s, { job, evaluation: null, paths: 0 }).text);
    expect(notes).toEqual(["1 balloon", "1 plate", "2 rows", "—", "—", "—", "draft"]);
  });
  it("is red where something is wrong, each remark at its own step", () => {
    const e = standing({ findings: ["outside-stock", "thin-wall", "grip-depth"].map(stop) });
    expect(stepNote("stock", e)).toEqual({ text: "too small", red: true });
    expect(stepNote("shape", e)).toMatchObject({ red: true });
    expect(stepNote("print", e).red).toBeUndefined();
  });
  it("counts what is proved and what is off", () => {
    const proved = standing({ ledger: entries("proved", "unused") });
    expect(stepNote("proof", proved)).toEqual({ text: "1 / 2" });
    const off = standing({ ledger: entries("proved", "off"), checks: [{ agrees: false }] });
    expect(stepNote("proof", off)).toEqual({ text: "1/2 ✗2 off", red: true });
    expect(stepNote("proof", standing({ checks: [{ agrees: false }] }))).toEqual({ text: "1 off", red: true });
  });
  it("says a waived remark no more, and one path as one", () => {
    const waived = { ...stop("thin-wall"), waived: "measured" };
    expect(stepNote("shape", standing({ findings: [waived] }))).toEqual({ text: "2 rows" });
    expect(stepNote("paths", standing({}, 1))).toEqual({ text: "1 path" });
    expect(stepNote("paths", standing({}, 6))).toEqual({ text: "6 paths" });
  });
});
