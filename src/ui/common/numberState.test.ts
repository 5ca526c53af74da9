import { readCard } from "@/core/callout";
import { toNumberText } from "@/core/number";
import { balloonOf, offersFor } from "./numberOffers";
import { numberState, type NumberField } from "./numberState";

const { job } = readCard(
  ["UNIT in", "LET wall = .125", "#1 ⌀2.185 ±.005", "#2 .375 DEEP", "#3 45°", "#4 .375", "#12 6X 8-32 UNC-2B"].join(
    "\n",
  ),
);
const state = (shown: string, more: Partial<NumberField> = {}) =>
  numberState({ shown, quantity: "length", ...more }, job);

describe("what a number field says", () => {
  it("asks about an empty number that is needed, and says none of one that is not", () => {
    expect(state("")).toEqual({ source: { kind: "missing" }, question: true, after: "in" });
    expect(state(" ", { optional: true })).toEqual({ source: { kind: "none" }, question: false, after: "in" });
  });
  it("tells where the number comes from", () => {
    expect(state("#1").source).toEqual({ kind: "balloons", numbers: [1] });
    expect(state("#1-2*#2").source).toEqual({ kind: "balloons", numbers: [1, 2] });
    expect(state(".159{tap drill of 8-32}").source).toEqual({ kind: "standard", cited: "tap drill of 8-32" });
    expect(state(".125!").source).toEqual({ kind: "own" });
    expect(state("wall").source.kind).toBe("unsourced");
    expect(state("1.5", { own: true }).source).toEqual({ kind: "own" });
    expect(state("1.5", { printed: true }).source).toEqual({ kind: "printed" });
  });
  it("takes what a balloon prints besides for its source", () => {
    const count = { quantity: "count" as const, printedBy: [12] };
    expect(state("6", count).source).toEqual({ kind: "balloons", numbers: [12] });
    expect(state("6!", count).source).toEqual({ kind: "own" });
  });
  it("asks about a bare number, and about what is no number", () => {
    expect(state("1.5")).toEqual({ source: { kind: "unsourced", typed: 1.5 }, question: true, after: "in" });
    const wrong = state("1.5*");
    expect(wrong.source.kind).toBe("problem");
    expect([wrong.question, wrong.after]).toEqual([true, "?"]);
  });
  it("shows the value only where the text does not", () => {
    expect(state("1.5!").after).toBe("in");
    expect(state("wall*2").after).toBe(".250");
    expect(state("30+15", { quantity: "angle" }).after).toBe("45°");
    expect(state("2*3", { quantity: "count" }).after).toBe("6");
    expect(state("12", { quantity: "count" }).after).toBe("");
  });
});

describe("what a number field offers", () => {
  const whole = (draft: string, quantity: NumberField["quantity"] = "length") =>
    offersFor(draft, job, quantity).map((o) => o.whole);
  it("is balloons of its own kind, and any size inside an expression", () => {
    expect(whole("#")).toEqual(["#1", "#2", "#4"]);
    expect(whole("#", "angle")).toEqual(["#3"]);
    expect(whole("1+#")).toEqual(["1+#1", "1+#2", "1+#3", "1+#4"]);
    expect(whole("#1")).toEqual(["#1"]);
  });
  it("is named values while a word is typed, and nothing after a figure", () => {
    expect(whole("2*wa")).toEqual(["2*wall"]);
    expect(whole("wa", "count")).toEqual(["wall"]);
    expect(whole("2.5")).toEqual([]);
  });
  it("finds the balloon of a bare figure, one that nothing uses first", () => {
    expect(balloonOf(0.375, job, "length", [])?.number).toBe(2);
    expect(balloonOf(0.375, job, "length", [4])?.number).toBe(4);
    expect(balloonOf(45, job, "length", [])).toBeUndefined();
    expect(balloonOf(45, job, "angle", [])?.number).toBe(3);
    expect(evaluated(".376")).toBeUndefined();
  });
  const evaluated = (text: string) => balloonOf(Number(toNumberText(text)), job, "length", []);
});
