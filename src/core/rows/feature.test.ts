import { z } from "zod";
import { prepare } from "../engine/prepare";
import { inch, jobOf, mm } from "../../../tests/helpers/card";
import { readCard } from "../callout";
import { kindOf, quantityAt, rowKinds, rowNumbers, type FeatureIs } from ".";

/** What each row of a card is. */
const features = (text: string) => prepare(jobOf(text)).rows.map((r) => r.feature);

describe("what a row is", () => {
  it("is one of a few, for every kind", () => {
    const all = new Set<FeatureIs>([
      "body",
      "turned",
      "hole",
      "pocket",
      "face",
      "step",
      "groove",
      "edge",
      "engraving",
      "taper",
      "bend",
      "shell",
      "thread",
      "knurl",
      "copies",
    ]);
    const outlines =
      'OUTLINE "o"\nCIRCLE ⌀10\nEND\nOUTLINE "half"\nSTART 0,0\nLINE TO X 10\nLINE TO Y 5\nLINE TO X 0\nCLOSE\nEND\nOUTLINE "line"\nSTART 0,0\nLINE TO X 10\nEND';
    for (const k of rowKinds) {
      const [feature] = features(
        mm(outlines, k.example.mm.replace(/"[^"]+"/, k.kind.includes("Turned") ? '"half"' : '"o"')),
      );
      expect([k.kind, feature === null || all.has(feature.is)]).toEqual([k.kind, true]);
    }
  });
  it("has fields whose numbers its grammar knows, those it has not yet among them", () => {
    const turns = ["turn", "angle", "from", "sweep", "draft"];
    for (const k of rowKinds) {
      const { body } = readCard(mm("LEAVE BLOCK 80 X 60 X 20", "CUT ⌀6 DEEP 5", k.example.mm)).job.rows.at(-1)!;
      for (const f of k.fields) {
        // Behind a piece the row has not got, there is nothing to fill in yet.
        const may = f.field === "number" && f.optional && !(f.path.startsWith("to.") && !("to" in body));
        if (f.field !== "number" || !(may || rowNumbers(body).some((n) => n.path === f.path))) continue;
        const asked = [k.kind, f.path, quantityAt(body, f.path)];
        if (f.path === "count") expect(asked).toEqual([k.kind, f.path, "count"]);
        else if (turns.includes(f.path)) expect(asked).toEqual([k.kind, f.path, expect.stringMatching(/ngle$/)]);
        else
          expect(asked).toEqual([
            k.kind,
            f.path,
            expect.stringMatching(/^(length|coordinate|offset|count|plain|.*ngle)$/),
          ]);
      }
    }
  });
  it("a hole with what is drilled, and its thread", () => {
    const [, plain, tapped, thru] = features(
      inch("LEAVE BLOCK 4 X 3 X 1", "CUT ⌀.25 DEEP .5", "CUT 8-32 UNC-2B DEEP .3 DRILL DEEP .45", "CUT ⌀.5 THRU"),
    );
    expect(plain).toEqual({ is: "hole", diameter: 0.25 * 25.4, depth: 0.5 * 25.4, mouth: [], thread: null });
    expect(tapped).toMatchObject({ is: "hole", depth: 0.45 * 25.4, thread: { pitch: 25.4 / 32, full: 0.3 * 25.4 } });
    expect(thru).toMatchObject({ depth: "thru" });
  });
  it("a pocket, round or of an outline, and a body that is round", () => {
    const [round, block, pocket, square, free] = features(
      mm(
        'OUTLINE "o"\nCIRCLE ⌀10\nEND',
        "LEAVE ROUND ⌀50 X 20",
        "LEAVE BLOCK 10 X 10 X 30",
        "CUT POCKET ⌀20 DEEP 5",
        "CUT POCKET 20 X 10 R2 DEEP 5",
        'CUT POCKET "o" DEEP 3',
      ),
    );
    expect([round, block]).toEqual([
      { is: "body", round: true, free: false },
      { is: "body", round: false, free: false },
    ]);
    expect([pocket, square, free]).toEqual([
      { is: "pocket", free: false, round: 10 },
      { is: "pocket", free: false, round: null },
      { is: "pocket", free: true, round: null },
    ]);
  });
  it("nothing, where its numbers make none", () => {
    expect(features(mm("LEAVE BLOCK 10 X 10 X 10", "CUT M6 DEEP 8 DRILL ⌀7 DEEP 10"))[1]).toBeNull();
    expect(features(mm("LEAVE BLOCK 10 X 10 X 10", "CUT ⌀? DEEP 8"))[1]).toBeNull();
  });
  it("a count is taken by the kinds that say so", () => {
    for (const k of rowKinds) {
      const counted = Boolean(k.traits?.counted);
      expect([k.kind, k.schema instanceof z.ZodObject && "count" in k.schema.shape]).toEqual([k.kind, counted]);
      expect(kindOf({ kind: k.kind })).toBe(k);
    }
  });
});
