import { readBalloonLine } from ".";

const read = (text: string) => readBalloonLine(text, 1);
const refused = (text: string) => {
  const r = read(text);
  return r.ok ? `read as ${r.balloon.kind} ${r.balloon.value}` : `${r.error.message}; ${r.error.expected}`;
};

describe("a balloon that no print can have", () => {
  it.each([
    ["-5", /less than nothing/],
    ["(-5)", /less than nothing/],
    ["R -.1", /a radius of -\.1/],
    ["⌀-3", /a diameter of -3/],
    ["-5 DEEP", /a depth/],
    ["0", /is nothing/],
    ["⌀0", /is nothing/],
    ["R0 MAX", /is nothing/],
    ["1e9", /1 e9 with a space for the fit/],
    ["1000000000", /larger than any part/],
    ["400°", /at most 360/],
    [".5 X 190°", /no chamfer/],
    ["1/4-21 UNC", /there is no 1\/4-21 UNC; 1\/4-20 UNC/],
    ["2X 1/4-27 UNF", /there is no/],
    ["M6X7", /no thread/],
    ["0X", /no count/],
    ["2.5X ⌀4", /no count/],
    [".5 ±-.1", /less than nothing/],
    ["12 ±15", /larger than the dimension/],
  ])("%s is refused with its reason", (text, reason) => expect(refused(text)).toMatch(reason));

  it.each([
    ".5 ±.5",
    "⌀8",
    "45°",
    "360°",
    ".5 X 179°",
    "1 e9",
    "20 h9",
    "1/4-20 UNC",
    "1/4-27 UNS",
    "M6X0.5",
    "1X",
    "99999",
    "0.002 / 0",
    "#4/2",
    "+0 -.1",
  ])("%s is none of those", (text) => expect(refused(text)).toMatch(/^read as|expected|a dimension/));

  it("a tolerance over and under a slash divides nothing", () => {
    const slash = read("2X .25 +.01/-.00");
    const spaced = read("2X .25 +.01 -.00");
    expect(slash).toEqual(spaced);
    expect(slash).toMatchObject({ ok: true, balloon: { tolerance: { kind: "sided", plus: ".01", minus: ".00" } } });
    expect(read("⌀.500 -.000/+.001")).toEqual(read("⌀.500 +.001 -.000"));
    expect(read("1/2 +1/64 -0")).toMatchObject({ ok: true, balloon: { tolerance: { plus: "1/64", minus: "0" } } });
  });

  it("degrees, minutes and seconds are an angle", () => {
    expect(read("1°26'16\"")).toMatchObject({ ok: true, balloon: { kind: "angle" } });
    expect(read("1d26m16s ±1°")).toMatchObject({ ok: true, balloon: { kind: "angle" } });
  });
});
