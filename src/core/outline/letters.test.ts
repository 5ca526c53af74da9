import { fontFiles, fontGlyphs } from "../../../scripts/fontGlyphs";
import { fonts } from "../tables/glyphs";
import { distance2, v2 } from "../geometry/vec";
import { arcsOf, lettering } from "./letters";
import { endOf, loopArea, loopBox, perimeter, startOf } from "./outline";
import { directionAt } from "./meet";

const write = (text: string, more: Partial<Parameters<typeof lettering>[0]> = {}) => {
  const r = lettering({ text, height: 10, font: "plain", ...more });
  if (!r.ok) throw new Error(r.problems[0].message);
  return r.value;
};
const area = (loops: ReturnType<typeof write>) => loops.reduce((s, l) => s + loopArea(l), 0);

/** Area under a font path by Green's theorem on its Béziers: exact, without any arcs. */
function pathArea(d: string): number {
  let a = 0,
    at = v2(0, 0),
    start = at;
  const cross = (p: { x: number; y: number }, q: { x: number; y: number }) => p.x * q.y - p.y * q.x;
  for (const m of d.matchAll(/([MLQCZ])([^MLQCZ]*)/g)) {
    const n = m[2].trim().split(/\s+/).map(Number),
      p = (i: number) => v2(n[i], n[i + 1]);
    if (m[1] === "M") at = start = p(0);
    else if (m[1] === "Z") a += cross(at, start) / 2;
    else if (m[1] === "L") {
      a += cross(at, p(0)) / 2;
      at = p(0);
    } else {
      const c = p(0),
        e = p(2);
      a += (2 * cross(at, c) + 2 * cross(c, e) + cross(at, e)) / 6;
      at = e;
    }
  }
  return Math.abs(a);
}

describe("letters", () => {
  it("are those of the shipped fonts, as the font file has them", () => {
    for (const name of ["plain", "mono"] as const) {
      const file = fontGlyphs(fontFiles[name]);
      expect(fonts[name].glyphs).toEqual(file.glyphs);
      expect(fonts[name].kern).toEqual(file.kern);
      expect(fonts[name].capHeight).toBe(file.capHeight);
    }
  });

  it("stand as high as the capitals are", () => {
    for (const font of ["plain", "mono"] as const) {
      const boxes = write("H", { font }).map(loopBox);
      expect(Math.min(...boxes.map((b) => b.min.y))).toBeCloseTo(0, 6);
      expect(Math.max(...boxes.map((b) => b.max.y))).toBeCloseTo(10, 6);
    }
  });

  it("enclose the area of the font’s own curves", () => {
    for (const c of "SOg8&@Qa") {
      const k = 10 / fonts.plain.capHeight,
        exact = pathArea(fonts.plain.glyphs[c][1]) * k * k;
      expect(Math.abs(area(write(c)) - exact) / exact).toBeLessThan(8e-4);
    }
  });

  it("enclose it nearly where their corners are made true rounds: every letter of both fonts", () => {
    for (const font of ["plain", "mono"] as const)
      for (let code = 33; code < 127; code++) {
        const c = String.fromCharCode(code);
        const k = 10 / fonts[font].capHeight;
        const exact = pathArea(fonts[font].glyphs[c][1]) * k * k;
        expect([c, Math.abs(area(write(c, { font })) - exact) / exact < 3.5e-3]).toEqual([c, true]);
      }
  });

  it("keep closed ways, each arc where the last piece ended", () => {
    for (const font of ["plain", "mono"] as const)
      for (let code = 33; code < 127; code++)
        for (const loop of write(String.fromCharCode(code), { font }))
          loop.forEach((s, i) => {
            const next = loop[(i + 1) % loop.length];
            expect(Math.hypot(endOf(s).x - startOf(next).x, endOf(s).y - startOf(next).y)).toBeLessThan(1e-6);
          });
  });

  it("are closed chains that keep their smoothness", () => {
    for (const loop of write("S8"))
      loop.forEach((s, i) => expect(distance2(endOf(s), startOf(loop[(i + 1) % loop.length]))).toBeLessThan(1e-7));
    // The pair of arcs leaves and arrives along the curve, and is smooth where it joins.
    const arcs = arcsOf([v2(0, 0), v2(0, 5), v2(5, 10), v2(10, 10)], 0.001);
    const first = directionAt(arcs[0], 0),
      last = directionAt(arcs[arcs.length - 1], 1);
    expect([first.x, first.y, last.x, last.y].map((x) => Math.abs(Math.round(x * 1e6) / 1e6))).toEqual([0, 1, 1, 0]);
    arcs.slice(1).forEach((s, i) => {
      const d = directionAt(arcs[i], 1),
        e = directionAt(s, 0);
      expect(Math.abs(d.x * e.y - d.y * e.x)).toBeLessThan(1e-6);
    });
  });

  it("stand in a line by their advance and kerning, from the left, the middle or the right", () => {
    const k = 10 / fonts.plain.capHeight,
      width = (fonts.plain.glyphs.A[0] + fonts.plain.glyphs.V[0] + fonts.plain.kern.AV) * k;
    const left = Math.min(...write("AV").map((l) => loopBox(l).min.x));
    expect(Math.min(...write("AV", { align: "middle" }).map((l) => loopBox(l).min.x))).toBeCloseTo(left - width / 2, 6);
    expect(Math.min(...write("AV", { align: "right" }).map((l) => loopBox(l).min.x))).toBeCloseTo(left - width, 6);
  });

  it("stand on a circle: outside with their feet to the centre, inside with their heads", () => {
    const around = { diameter: 100, from: Math.PI / 2, inside: false };
    const out = write("HHH", { align: "middle", around })
      .flat()
      .map(startOf)
      .map((p) => Math.hypot(p.x, p.y));
    expect(Math.min(...out)).toBeGreaterThan(49.9);
    expect(Math.max(...out)).toBeGreaterThan(59.9);
    const inside = write("HHH", { align: "middle", around: { ...around, from: -Math.PI / 2, inside: true } })
      .flat()
      .map(startOf);
    expect(Math.max(...inside.map((p) => Math.hypot(p.x, p.y)))).toBeLessThan(50.3);
    expect(Math.max(...inside.map((p) => p.y))).toBeLessThan(0);
    expect(perimeter(write("HHH", { around })[0])).toBeCloseTo(perimeter(write("H")[0]), 6);
  });

  it("say which one the font has not", () => {
    const r = lettering({ text: "A漢", height: 5, font: "plain" });
    expect(!r.ok && r.problems[0].message).toContain("漢");
  });
});
