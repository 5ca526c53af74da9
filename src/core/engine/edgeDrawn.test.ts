import { evaluateCard, kernel, mm } from "../../../tests/helpers/card";
import { length, sub } from "../geometry/vec";
import { drawnEdge } from "./edgeDrawn";

describe("an edge as it is drawn", () => {
  it("runs along its curve: its pieces are as long as the edge, and lie on it", async () => {
    const e = await evaluateCard(mm("LEAVE BLOCK 60 X 40 X 20", "CUT ROUND 15 VERTICAL", "CUT ⌀12 THRU AT 5,3"));
    const edges = (await kernel()).edges(e.solved.finalKey!);
    const rounds = edges.filter((x) => x.curve === "circle");
    expect(rounds.length).toBeGreaterThan(8);
    // The bore's seam has two ends on one face: it is no edge that can be seen.
    const seams = edges.filter((x) => x.length === 0);
    expect(seams.map(drawnEdge)).toEqual([[]]);
    for (const x of edges.filter((e) => !seams.includes(e))) {
      const pieces = drawnEdge(x);
      const drawn = pieces.reduce((sum, [a, b]) => sum + length(sub(b, a)), 0);
      // Chords of at most 7.5 degrees: shorter by at most θ²/24.
      expect(drawn / x.length).toBeGreaterThan(1 - (Math.PI / 24) ** 2 / 24 - 1e-9);
      expect(length(sub(pieces[0][0], x.from))).toBeLessThan(1e-6);
      expect(length(sub(pieces[pieces.length - 1][1], x.to))).toBeLessThan(1e-6);
      for (const [p] of x.curve === "circle" ? pieces : []) expect(length(sub(p, x.centre!))).toBeCloseTo(x.radius!, 6);
    }
  });
});
