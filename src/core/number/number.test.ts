import fc from "fast-check";
import {
  balloonAlone,
  citedIn,
  showArea,
  showBulk,
  showVolume,
  evaluateNumber,
  INCH,
  inCallout,
  lengthText,
  negated,
  normaliseNumberText,
  readExpression,
  showLength,
  toNumberText,
  type NumberScope,
  type Quantity,
} from ".";
import { fail, ok } from "../base/result";
import { readCard } from "../callout";
import { numberScope } from "../engine/numbers";

const scope: NumberScope = {
  unit: "in",
  balloon: (n) => (n === 4 ? ok(1.25) : n === 9 ? ok(0.4) : fail({ message: `there is no balloon #${n}` })),
};
const typed = (text: string, quantity: Quantity = "coordinate", s = scope) => {
  const r = evaluateNumber(text, quantity, s);
  if (!r.ok) throw new Error(r.problems[0].message);
  return r.value.typed;
};
const problem = (text: string, quantity: Quantity = "coordinate") => {
  const r = evaluateNumber(text, quantity, scope);
  if (r.ok) throw new Error(`${text} was read as ${r.value.typed}`);
  return r.problems[0];
};

describe("numbers as a print writes them", () => {
  it.each<[string, number]>([
    ["1.85", 1.85],
    [".25", 0.25],
    ["12", 12],
    ["3/8", 0.375],
    ["1-1/2", 1.5],
    ["1 1/2", 1.5],
    ["1 - 1/2", 0.5],
    ["(1 - 1/2)", 0.5],
    ["-1-1/2", -1.5],
    ["375 thou", 0.375],
    ["375thou", 0.375],
    ["12.7mm", 0.5],
    [".5in", 0.5],
    ["(10+15.4)mm", 1],
    ["#4", 1.25],
    ["#4/2", 0.625],
    ["#4-1/2", 0.75],
    ["#4/3/8", 1.25 / 3 / 8],
    ["12/3/4", 1],
    ["5.8 - 2.3", 3.5],
    ["2*3/8", 0.75],
    ["2*(1+#9)", 2.8],
    ["sqrt(2)/2", Math.SQRT1_2],
    ["sin(30)", 0.5],
    ["2*cos(60)", 1],
    ["atan2(1,1)", 45],
    ["max(1,#4,.5)", 1.25],
    ["abs(-3)", 3],
    ["-.6", -0.6],
    ["--2", 2],
    ["1.5-1/2", 1],
  ])("%s is %d", (text, value) => expect(typed(text)).toBeCloseTo(value, 12));

  it("converts units exactly by 25.4", () => {
    expect(evaluateNumber("12.5mm", "length", scope)).toMatchObject({ ok: true, value: { value: 12.5 } });
    expect(typed("1in", "length", { ...scope, unit: "mm" })).toBe(25.4);
    expect(INCH).toBe(25.4);
  });
  it("reads degrees, minutes and seconds as an angle", () => {
    expect(typed("1°26'16\"", "angle")).toBeCloseTo(1 + 26 / 60 + 16 / 3600, 12);
    expect(typed("1d26m16s", "angle")).toBeCloseTo(1.437777777, 8);
    expect(typed("45°", "angle")).toBe(45);
    expect(problem("1d26m16s").message).toMatch(/angle/);
  });
  it.each<[string, string, number]>([
    ["1//2", "is no number", 2],
    ["2 +", "missing", 3],
    ["(1+2", "bracket is open", 4],
    ["1/0", "division by zero", 1],
    ["3/(2-2)", "division by zero", 1],
    ["#", "#", 1],
    ["1.2.3", "one decimal point", 3],
    ["1-3/2", "mixed number", 0],
    ["wall*2", "nothing is named wall", 0],
    ["foo(2)", "no function", 0],
    ["sqrt(0-1)", "has no value", 0],
    ["2 $", "does not belong", 2],
    ["1+#77", "no balloon #77", 2],
    ["sin(1,2)", "takes 1", 0],
  ])("%s is refused: %s at %d", (text, message, at) => {
    const p = problem(text);
    expect(p.message).toContain(message);
    expect(p.at).toBe(at);
  });
  it("bounds what a workshop could hold", () => {
    expect(problem("0", "length").message).toMatch(/more than zero/);
    expect(problem("-1", "length").message).toMatch(/more than zero/);
    expect(problem("99999999", "length").message).toMatch(/larger than any machine/);
    expect(problem(".000001", "length").message).toMatch(/too small/);
    expect(problem("9".repeat(199)).message).toMatch(/larger|large/);
    expect(problem("2.5", "count").message).toMatch(/whole number/);
    expect(problem("180", "includedAngle").message).toMatch(/between 0 and 180/);
    expect(problem("(".repeat(150) + "1" + ")".repeat(150)).message).toMatch(/brackets/);
  });
  it("knows where a number comes from", () => {
    const source = (t: string) => {
      const r = evaluateNumber(t, "coordinate", scope);
      return r.ok && [r.value.source, r.value.cites];
    };
    expect(source("#4/2 + #9")).toEqual(["print", [4, 9]]);
    expect(source(".125")).toEqual(["unsourced", []]);
    expect(source(".125!")).toEqual(["shop", []]);
    expect(problem("?").message).toBe("no value yet");
  });
});

describe("named values and tables", () => {
  const job = (...lines: string[]) => numberScope(readCard(["UNIT mm", ...lines].join("\n")).job);
  const value = (text: string, s: NumberScope) => {
    const r = evaluateNumber(text, "coordinate", s);
    return r.ok ? [r.value.typed, r.value.source, r.value.cites] : `${r.problems[0].message} at ${r.problems[0].at}`;
  };
  it("stand where a number stands and bring their source", () => {
    const s = job("#4 20", "LET wall = 3", "LET own = 5!", "LET half = #4/2", "LET two = wall*2", "LET far = 1in");
    expect(value("wall*2", s)).toEqual([6, "unsourced", []]);
    expect(value("WALL", s)).toEqual([3, "unsourced", []]);
    expect(value("own + 1", s)).toEqual([6, "shop", []]);
    expect(value("half", s)).toEqual([10, "print", [4]]);
    expect(value("two", s)).toEqual([6, "unsourced", []]);
    expect(value("far", s)).toEqual([25.4, "unsourced", []]);
  });
  it("say when they run in a circle or are not there", () => {
    const s = job("LET a = b+1", "LET b = a*2", "LET c = 1/(2-2)", "#1 #2", "#2 #1");
    expect(value("a", s)).toMatch(/in a circle.* at 0/);
    expect(value("1+c", s)).toMatch(/c: division by zero at 2/);
    expect(value("2*nix", s)).toMatch(/nothing is named nix at 2/);
    expect(value("#1", s)).toMatch(/in a circle/);
  });
  it("cite a table", () => {
    expect(evaluateNumber("3.3{tap drill of M4}", "length", job())).toMatchObject({
      ok: true,
      value: { typed: 3.3, source: "standard", cited: "tap drill of M4" },
    });
    expect(normaliseNumberText(" 3.3 { tap drill of M4 } ")).toBe("3.3{tap drill of M4}");
    expect(inCallout("1 + 2{sum}")).toBe("(1 + 2){sum}");
    expect(problem("{x}").message).toBeTruthy();
  });
  it("converts a bracketed value with its unit", () => {
    expect(typed("(7/16)in")).toBeCloseTo(0.4375, 12);
    expect(typed("(3)mm")).toBeCloseTo(3 / 25.4, 12);
  });
});

describe("number text", () => {
  it("has one form for one number", () => {
    expect(normaliseNumberText("(5.8 - 2.3)")).toBe("5.8 - 2.3");
    expect(normaliseNumberText("  1-1/2 ")).toBe("1-1/2");
    expect(normaliseNumberText("(5+8)")).toBe("(5+8)");
    expect(normaliseNumberText("")).toBe("?");
    expect(inCallout("5.8 - 2.3")).toBe("(5.8 - 2.3)");
    expect(inCallout("4..2")).toBe("`4..2`");
    expect(inCallout("375 thou!")).toBe("(375 thou)!");
  });
  it("keeps any text through a callout and back", () => {
    fc.assert(
      fc.property(fc.stringMatching(/^[0-9.+\-*/()# a-z]{1,20}$/), (text) => {
        const n = toNumberText(text);
        expect(toNumberText(n)).toBe(n);
        const shown = inCallout(n);
        if (shown.startsWith("`") || shown === "?") return;
        const chosen = shown.endsWith("!") ? shown.slice(0, -1) : shown;
        expect(readExpression(chosen, 0, false).end).toBe(chosen.length);
      }),
    );
  });
  it("agrees with plain arithmetic", () => {
    const leaf = fc.integer({ min: 1, max: 999 }).map((n) => n / 8);
    const tree: fc.Arbitrary<[string, number]> = fc.letrec<{ t: [string, number] }>((tie) => ({
      t: fc.oneof(
        { maxDepth: 4 },
        leaf.map((n): [string, number] => [String(n), n]),
        fc
          .tuple(tie("t"), fc.constantFrom("+", "-", "*"), tie("t"))
          .map(([a, o, b]): [string, number] => [
            `(${a[0]} ${o} ${b[0]})`,
            o === "+" ? a[1] + b[1] : o === "-" ? a[1] - b[1] : a[1] * b[1],
          ]),
      ),
    })).t;
    fc.assert(
      fc.property(tree, ([text, value]) => {
        const r = evaluateNumber(text, "plain", scope);
        expect(r.ok && r.value.typed).toBeCloseTo(value, 6);
      }),
    );
  });
  it("reads every mixed number of sixty-fourths", () => {
    for (let w = 0; w < 4; w++)
      for (let n = 1; n < 64; n++) expect(typed(w ? `${w}-${n}/64` : `${n}/64`)).toBeCloseTo(w + n / 64, 12);
  });
  it("shows inches without a leading zero", () => {
    expect(showLength(6.35, "in")).toBe(".250");
    expect(showLength(-6.35, "in")).toBe("-.250");
    expect(showLength(38.1, "in")).toBe("1.500");
    expect(showLength(12.5, "mm")).toBe("12.50");
    expect(lengthText(3.4925, "in")).toBe(".1375");
    expect(lengthText(0, "in")).toBe("0");
    expect(lengthText(-0.0000001, "mm")).toBe("0");
  });
});

describe("areas and volumes as a job shows them", () => {
  it("in its own unit, and in no other", () => {
    expect([showArea(25.4 ** 2, "in"), showArea(25.4 ** 2, "mm")]).toEqual(["1.0000 in²", "645.16 mm²"]);
    expect([showVolume(25.4 ** 3, "in"), showVolume(25.4 ** 3, "mm")]).toEqual(["1.0000 in³", "16387.1 mm³"]);
    expect([showBulk(25.4 ** 3, "in"), showBulk(25.4 ** 3, "mm")]).toEqual(["1.000 in³", "16.387 cm³"]);
    expect(showArea(122 * 25.4 ** 2, "in", 1)).toBe("122.0 in²");
  });
});

describe("a number's text turned round zero", () => {
  it.each([
    ["1.5", "-1.5"],
    ["-1.5", "1.5"],
    ["0", "0"],
    [".000", ".000"],
    ["3/8", "-3/8"],
    ["#4/2", "-#4/2"],
    ["5!", "-5!"],
    ["-5{from sheet 2}", "5{from sheet 2}"],
    ["1-1/2", "(-(1-1/2))"],
    ["-5+3", "(-(-5+3))"],
    ["(#1 - .2)", "(-((#1 - .2)))"],
  ])("%s becomes %s", (text, becomes) => expect(negated(text)).toBe(becomes));
  it("is the same figure with the other sign, and comes back", () => {
    for (const text of ["1.5", "-2", "3/8", "1-1/2", "-5+3", "(7 - .2)"]) {
      expect(typed(negated(text))).toBeCloseTo(-typed(text), 12);
      expect(typed(negated(negated(text)))).toBeCloseTo(typed(text), 12);
    }
  });
});

describe("what a number's text cites", () => {
  it("is every balloon in it, in the order they stand there", () => {
    expect(citedIn("#12")).toEqual([12]);
    expect(citedIn("(#1 - 2*#3)/2!")).toEqual([1, 3]);
    expect(citedIn("max(#4, .5) + -#2")).toEqual([4, 2]);
    expect(citedIn("3.3{tap drill of M4, see #7}")).toEqual([]);
    expect(citedIn("wall*2")).toEqual([]);
    expect(citedIn("#")).toEqual([]);
  });
  it("may be a balloon and nothing besides", () => {
    expect(balloonAlone(" #12 ")).toBe(12);
    expect(balloonAlone("#12*2")).toBeNull();
    expect(balloonAlone("-#12")).toBeNull();
    expect(balloonAlone("12")).toBeNull();
  });
});
