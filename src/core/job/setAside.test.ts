import { readCard } from "../callout";
import type { JobDocument } from "./schema";
import { withoutRefused } from "./setAside";

const job = (rows: string): JobDocument => {
  const card = readCard(`JOB "Lid"\nUNIT mm\n#1 20\n${rows}`);
  if (card.errors.length) throw new Error(card.errors[0].message);
  return card.document;
};
const rowsOf = (d: JobDocument | null) => d!.parts[0].rows.map((r) => [r.id, r.name ?? ""]);

describe("what a server did not take", () => {
  const server = job("LEAVE BLOCK 40 X 30 X 20\nCUT ⌀5 THRU");
  const here = job('LEAVE BLOCK 40 X 30 X 20\nCUT "bad": ⌀6 THRU\nCUT "good": ⌀7 THRU AT 5,5');
  it("is put back where it was there before, and everything else stays", () => {
    const left = withoutRefused(server, here, [["parts", 0, "rows", 1, "name"]]);
    expect(rowsOf(left)).toEqual([
      ["r1", ""],
      ["r2", ""],
      ["r3", "good"],
    ]);
  });
  it("is left out where it is new", () => {
    expect(rowsOf(withoutRefused(server, here, [["parts", 0, "rows", 2, "body", "at"]]))).toEqual([
      ["r1", ""],
      ["r2", "bad"],
    ]);
  });
  it("may be several, named from any end", () => {
    const places = [
      ["parts", 0, "rows", 1, "name"],
      ["parts", 0, "rows", 2, "name"],
    ];
    for (const p of [places, [...places].reverse()])
      expect(rowsOf(withoutRefused(server, here, p))).toEqual([
        ["r1", ""],
        ["r2", ""],
      ]);
  });
  it("may be a figure of the whole job, or a balloon", () => {
    const named = { ...here, name: "\u0000", title: { notes: "\u0000" } };
    const left = withoutRefused(server, named, [["name"], ["title", "notes"]]);
    expect([left!.name, left!.title]).toEqual(["Lid", {}]);
    const balloon = { ...here, balloons: [{ ...here.balloons[0], note: "\u0000" }] };
    expect(withoutRefused(server, balloon, [["balloons", 0, "note"]])!.balloons).toEqual(server.balloons);
  });
  it("cannot be told apart where no place is named", () => {
    expect(withoutRefused(server, here, [])).toBeNull();
    expect(withoutRefused(server, here, [[]])).toBeNull();
  });
});
