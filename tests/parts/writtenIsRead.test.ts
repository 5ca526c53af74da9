import { runs } from "../helpers/thorough";
import { readdirSync, readFileSync } from "node:fs";
import { readCard, writeDocument } from "@/core/callout";
import { applyEdits, jobOf, jobSchema, readJobText, type JobDocument } from "@/core/job";
import { rowNames } from "@/core/job/names";
import { dice, randomEdit } from "../helpers/torture";

/** What a number, a name or a thread might be by a slip of the keys. */
const SLIPS = [
  ".001|-1|1e3|?|#4/2|(1+2)|1/2|abc|1 1/2|12.5mm|1°26'16\"|0||1'|wall|#999|`x`|-.5|1/0|100000000|2 X 3|5;6".split("|"),
  ['a"b', "a;b", "  lead ", "a`b", "END", "#5", "M8", "M6-6g", "1-1/2", "×", "gone-7", "r99", "REV", "TO NEXT"],
].flat();
/** What a card has no line for. */
const BESIDES = new Set("prints waivers proofs signOff crib cutters solids format version".split(" "));

const demo = readdirSync("demo")
  .filter((f) => f.endsWith(".job.json"))
  .map((f) => {
    const read = readJobText(readFileSync(`demo/${f}`, "utf8"));
    if (!read.ok) throw new Error(read.problems[0].message);
    return [f, read.value] as const;
  });

type Path = (string | number)[];
function leaves(value: unknown, path: Path = []): Path[] {
  if (typeof value === "string" || typeof value === "number") return [path];
  if (typeof value !== "object" || value === null) return [];
  return Object.entries(value).flatMap(([k, v]) => leaves(v, [...path, Array.isArray(value) ? Number(k) : k]));
}
function withLeaf(document: JobDocument, path: Path, text: string): unknown {
  const copy = structuredClone(document) as unknown;
  let at = copy as Record<string | number, unknown>;
  for (const step of path.slice(0, -1)) at = at[step] as typeof at;
  const last = path[path.length - 1];
  at[last] = typeof at[last] === "number" ? Number(text) : text;
  return copy;
}

/** Why a card of a document is not read as the document it was written from; empty where it is. */
function misread(document: JobDocument): string {
  const text = writeDocument(document);
  const card = readCard(text);
  const lines = text.split("\n");
  if (card.errors.length) return `${card.errors[0].message}: ${lines[card.errors[0].line - 1]}`;
  const again = writeDocument(card.document).split("\n");
  const at = lines.findIndex((l, i) => l !== again[i]);
  return at < 0 ? "" : `${lines[at]} came back as ${again[at]}`;
}

describe("a card written by us is read by us", () => {
  it.each(demo)("%s, with any one text of it typed wrongly, or it is refused at the door", (_, document) => {
    const roll = dice(7);
    const bad: string[] = [];
    let written = 0;
    const paths = leaves(document).filter((p) => !BESIDES.has(String(p[0])));
    // As many of a long document as of a short one.
    const every = runs(1, Math.ceil(paths.length / 150));
    for (const path of paths.filter((_, i) => i % every === 0)) {
      const slip = SLIPS[Math.floor(roll() * SLIPS.length)];
      const taken = jobSchema.safeParse(withLeaf(document, path, slip));
      if (!taken.success) continue;
      written++;
      const why = misread(taken.data as JobDocument);
      if (why) bad.push(`${path.join(".")} <- ${slip}: ${why}`);
    }
    expect(bad).toEqual([]);
    expect(written).toBeGreaterThan(20);
  });

  it.each(demo)("%s, after random edits of its rows", (_, document) => {
    const roll = dice(11);
    let now = document;
    for (let i = 0; i < runs(40, 15); i++) {
      const edits = randomEdit(jobOf(now), roll, i);
      const r = applyEdits(now, edits);
      if (!edits.length || !r.ok || !jobSchema.safeParse(r.value.job).success) continue;
      now = r.value.job;
      expect(misread(now)).toBe("");
    }
  });

  it("a row of another part that is not there keeps its number, and never becomes one that is", () => {
    const card = (n: number) =>
      `JOB "x"\nUNIT mm\nLEAVE BLOCK 6 X 4 X 2\nPART "p" JAWS\nLEAVE BLOCK 6 X 4 X 2\nREPEAT ${n} 3X AROUND Z\n`;
    expect(writeDocument(readCard(card(7)).document)).toContain("REPEAT 7 3X AROUND Z");
    const names = rowNames([{ id: "a" }, { id: "b" }, { id: "c" }]);
    expect(["gone-7", "r7", "q1r7", "gone-2", "r2", "wall", "b"].map((id) => names.numberOf(id))).toEqual([
      7, 7, 7, 0, 0, 0, 2,
    ]);
  });

  it("a setup whose rows are gone has none, and not every one", () => {
    const card = readCard("UNIT mm\nLEAVE BLOCK 9 X 9 X 9\nSETUP 10 MILL UP TOP ROWS 3 4\n");
    expect(card.errors).toEqual([]);
    const text = writeDocument(card.document);
    expect(text).toContain("SETUP 10 MILL UP TOP ROWS NONE");
    expect(readCard(text).document.setups[0].rows).toEqual([]);
  });
});
