import { evaluateCard, mm } from "../../../tests/helpers/card";
import type { PlaneRef } from "../rows";
import { planeWords } from "./planeWords";

const after = async (...rows: string[]) => (await evaluateCard(mm(...rows))).solved.rows;
const topOf = (row: string): PlaneRef => ({ on: "topOf", row });

describe("which plane a word comes to", () => {
  it("the top of a prism that lies on its side is its end", async () => {
    const rows = await after("LEAVE ROUND ⌀20 X 50 ON FRONT");
    const end = rows[0].planes!.top!;
    // It grows out of the front plane through the job's zero: towards -Y, by its length.
    expect(end.normal.y).toBeCloseTo(-1, 9);
    expect(planeWords(topOf(rows[0].row.id), rows, "mm")).toBe(
      `the face that looks front, at Y ${end.origin.y.toFixed(2)}`,
    );
  });
  it("says nothing of a top that looks up, nor of a side that looks where it says", async () => {
    const rows = await after("LEAVE BLOCK 60 X 40 X 20");
    const { id } = rows[0].row;
    expect(planeWords(topOf(id), rows, "mm")).toBeNull();
    expect(planeWords({ on: "sideOf", side: "left", row: id }, rows, "mm")).toBeNull();
    // Counted flats are told: the first step of a block runs along its front.
    expect(planeWords({ on: "flatOf", flat: 2, row: id }, rows, "in")).toBe("the face that looks right, at X 1.181");
  });
  it("the first row's front is the main plane, later ones are the part's", async () => {
    const rows = await after("LEAVE BLOCK 60 X 40 X 20");
    expect(planeWords({ on: "front" }, [], "mm")).toBe("the plane through the job's zero that looks front");
    expect(planeWords({ on: "front" }, rows, "mm")).toBe("the part's own front side");
  });
});
