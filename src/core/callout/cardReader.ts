import { CalloutError, Reader } from "../grammar/reader";
import type { RowNames } from "../grammar/grammar";
import { partKindIds, partKinds, type PartKindId } from "../job/partKinds";
import { documentOf, jobOf } from "../job/parts";
import {
  emptyJob,
  type Balloon,
  type Hold,
  type Job,
  type JobDocument,
  type Part,
  type Placement,
  type Setup,
} from "../job/schema";
import { toNumberText, unitNames } from "../number";
import { readOutlineItem, type OutlineItem } from "../outline/items";
import { readSetup } from "./setupLine";
import { readPlaneMaking, sideWords, verbs } from "../rows";
import { readPoint } from "../rows/places";
import { readBalloon } from "./balloonLine";
import { readCheck } from "../job/checkKinds";
import { readLet, readStock, readTolerances } from "./headLines";
import {
  cardError,
  readBalloonLine,
  readLedgerLine,
  readOutlineLine,
  readTypedRow,
  withoutRemark,
  type CardError,
} from "./lines";

/** Where the numbers of a row stand in its text, by path. */
export interface RowPlace {
  line: number;
  columns: Map<string, number>;
}

export interface ReadCard {
  /** The workpiece, and all of the job's parts. */
  job: Job;
  document: JobDocument;
  errors: CardError[];
  places: Map<string, RowPlace>;
  /** Lines of each outline's items, by its id. */
  outlineLines: Map<string, number[]>;
}

const MAX_LINES = 20_000;
const MAX_LINE = 20_000;
/** Wrong lines of a card that are told what to type instead. */
const MOST_SUGGESTED = 20;
/** Wrong lines after which a card is not read on. */
const MOST_WRONG = 300;
/** Rows of the n-th part: those of the workpiece are r1, r2 and so on. */
const namesOfPart = (prefix: string): RowNames => ({
  idOf: (n) => `${prefix}r${n}`,
  numberOf: (id) => id.slice(prefix.length + 1),
});

/** Reads a whole card. Wrong lines are listed; what could be read stands in the job. */
export function readCard(text: string): ReadCard {
  const lines = text.replace(/^\uFEFF/, "").split(/\r\n|\n|\r/);
  const some = lines.slice(0, MAX_LINES);
  const numbered = new Set(some.flatMap((l) => /^\s*#(\d{1,4})\s/.exec(l)?.[1] ?? []).map(Number));
  const reader = new CardReader(namedBy(some), numbered);
  if (lines.length > MAX_LINES) reader.fault(MAX_LINES + 1, 1, `more than ${MAX_LINES} lines`, "a shorter card");
  else
    for (const [i, line] of lines.entries()) {
      if (!reader.reads(i + 1)) break;
      reader.line(line, i + 1);
    }
  return reader.end();
}

/** Names the lines of a card define: named values, and balloons that print a thread. */
function namedBy(lines: string[]): Set<string> {
  const named = new Set(lines.flatMap((l) => /^\s*LET\s+([A-Za-z_]\w*)/i.exec(l)?.[1].toLowerCase() ?? []));
  for (const l of lines) {
    const b = /^\s*#(\d{1,4})\s+(.+)$/.exec(withoutRemark(l));
    const read = b && readBalloonLine(b[2], Number(b[1]), named);
    if (read?.ok && read.balloon.thread !== undefined) named.add(`#${read.balloon.number}`);
  }
  return named;
}

/** A line being read: its text and where in the card it stands. */
interface Line {
  r: Reader;
  body: string;
  at: number;
}
type Head = (typeof heads)[number];
const heads = [
  "JOB",
  "UNIT",
  "MATERIAL",
  "STOCK",
  "CHECK",
  "EDGES",
  "HOLD",
  "LET",
  "TOLERANCES",
  "TOLERANCE",
  "OUTLINE",
  "PLANE",
  "PART",
  "PLACE",
  "SETUP",
] as const;
const kindWords = partKindIds.map((k) => partKinds[k].word);
const kindOfWord = (word: string): PartKindId => partKindIds.find((k) => partKinds[k].word === word)!;
/** What ids of the n-th part begin with. */
const prefixOf = (part: number): string => (part ? `q${part}` : "");
const indent = (text: string): number => text.length - text.trimStart().length;

class CardReader {
  private readonly job = emptyJob("Untitled", "mm", "");
  /** The part that is being read: the workpiece first. */
  private part: Part = { id: "work", name: "", kind: "work", stock: null, outlines: [], rows: [] };
  private readonly parts: Part[] = [this.part];
  private hold: Hold | null = null;
  private readonly setups: Setup[] = [];
  private names: RowNames = { ...namesOfPart(""), ofPart: (name) => this.rowsOfPart(name) };
  private readonly errors: CardError[] = [];
  private readonly places = new Map<string, RowPlace>();
  private readonly outlineLines = new Map<string, number[]>();
  /** The outline whose lines are being read, and the line it begins in. */
  private open: { outline: Part["outlines"][number]; lines: number[]; at: number } | null = null;
  private unitSeen = false;
  private unitMissed = false;
  private rows = 0;
  private isEmpty = true;

  /**
   * @param named values and threads the card's lines define
   * @param numbered balloons that have a line of their own
   */
  constructor(
    private readonly named: ReadonlySet<string>,
    private readonly numbered: ReadonlySet<number>,
  ) {}

  /** Whether it is worth reading on: a text of which hundreds of lines are no card is told once. */
  reads(line: number): boolean {
    if (this.errors.length < MOST_WRONG) return true;
    this.fault(line, 1, `${MOST_WRONG} lines before this one are wrong: the rest was not read`, "a card");
    return false;
  }

  fault(line: number, column: number, message: string, expected: string): void {
    this.errors.push({ line, column, message, expected });
  }

  /** What was read, with what only shows at the end. */
  end(): ReadCard {
    if (this.open) this.fault(this.open.at, 1, `outline "${this.open.outline.name}" has no end`, "END");
    if (this.isEmpty && !this.errors.length) this.fault(1, 1, "the card is empty", "JOB, UNIT and rows");
    const { errors, places, outlineLines } = this;
    const setups = this.setups.length ? { setups: this.setups } : {};
    const document = documentOf({ ...this.job, hold: this.hold, ...setups }, this.parts);
    return { job: jobOf(document), document, errors, places, outlineLines };
  }

  /** How the rows of another part are named; none where it has not been read yet. */
  private rowsOfPart(name: string): RowNames | undefined {
    const at = this.parts.findIndex(
      (p, i) => (p.name || (i ? "" : this.job.name)).toLowerCase() === name.toLowerCase(),
    );
    return at < 0 || this.parts[at] === this.part ? undefined : namesOfPart(prefixOf(at));
  }

  /** `PART "soft jaws" JAWS`: what follows belongs to it. */
  private startPart(r: Reader): void {
    const at = r.pos;
    const name = r.quoted(120).trim();
    if (!name) r.fail("a name in double quotes", "the part has no name", at);
    const kind = kindOfWord(r.takeOne(kindWords) ?? (r.done ? partKinds.work.word : r.fail(kindWords.join(", "))));
    const [work] = this.parts;
    // A first line names the workpiece itself.
    if (this.part === work && kind === "work" && !work.rows.length && !work.outlines.length && !work.name) {
      work.name = name;
      return;
    }
    if (this.rowsOfPart(name) || name.toLowerCase() === this.part.name.toLowerCase())
      r.fail("another name", `part "${name}" is there twice`, at);
    const prefix = prefixOf(this.parts.length);
    this.part = { id: `part${this.parts.length}`, name, kind, stock: null, outlines: [], rows: [] };
    this.parts.push(this.part);
    this.rows = 0;
    this.names = { ...namesOfPart(prefix), ofPart: (other) => this.rowsOfPart(other) };
  }

  /** `PLACE "clamp" IN "plate" AT x,y,z [UP side] [TURN a]`. */
  private place(r: Reader): void {
    const part = r.quoted().trim();
    r.want("IN");
    const at = r.pos;
    const host = r.quoted().trim().toLowerCase();
    const into = this.parts.find((p, i) => (p.name || (i ? "" : this.job.name)).toLowerCase() === host);
    if (!into) return r.fail("the name of a part that has a line before", `there is no part "${host}"`, at);
    r.want("AT");
    const spot = readPoint(r, "at");
    r.skip();
    if (r.text[r.pos] !== ",") r.fail(", and z");
    r.pos++;
    const placement: Placement = { part, at: { ...spot, z: r.number("at.z", "a coordinate z") } };
    while (!r.done) {
      if (r.take("TURN")) placement.turn = r.angle("turn");
      else if (r.take("UP"))
        placement.up = sideWords.find(([w]) => r.take(w))?.[1] ?? r.fail("TOP, BOTTOM, FRONT, BACK, LEFT or RIGHT");
      else if (r.take("MIDDLE")) placement.middle = true;
      else if (r.take("AFTER", "SETUP")) placement.setup = r.whole("the number of a setup, or 0 for the stock");
      else r.fail("UP, TURN, MIDDLE or AFTER SETUP");
    }
    (into.places ??= []).push(placement);
  }

  line(whole: string, at: number): void {
    if (whole.length > MAX_LINE)
      return this.fault(at, MAX_LINE, "this line is too long", `at most ${MAX_LINE} characters`);
    const body = withoutRemark(whole).trimEnd();
    if (body.trim() === "") return;
    this.isEmpty = false;
    try {
      const line = { r: new Reader(body, this.named), body, at };
      if (this.open) this.outlineLine(line, this.open);
      else this.cardLine(line);
      if (!line.r.done) line.r.fail("the end of the line");
    } catch (e) {
      if (!(e instanceof CalloutError)) throw e;
      this.errors.push(cardError(e, at));
    }
  }

  private outlineLine({ r, at }: Line, open: NonNullable<CardReader["open"]>): void {
    if (r.take("END")) {
      this.open = null;
      return;
    }
    open.outline.items.push(this.outlineItem(r, open.outline.items.length === 0));
    open.lines.push(at);
  }
  private outlineItem(r: Reader, isFirst: boolean): OutlineItem {
    const from = r.pos;
    try {
      const item = readOutlineItem(r, this.names);
      if (!r.done) r.fail("the end of the line");
      return item;
    } catch (e) {
      if (!(e instanceof CalloutError)) throw e;
      const said = readOutlineLine(r.text.slice(from), this.names, this.named, isFirst);
      if (!said.ok) throw e;
      r.pos = r.text.length;
      return said.item;
    }
  }

  private cardLine(line: Line): void {
    const { r, body } = line;
    const isRow = r.sees("OFF") || verbs.some((v) => r.sees(v.toUpperCase()));
    if (isRow) this.rows++;
    const isBalloon = body.trimStart()[0] === "#";
    const head = r.takeOne(heads);
    this.unitFirst(body, head, isRow || isBalloon);
    if (head) return this.heads[head](line);
    if (isRow) return this.row(line);
    if (isBalloon) return this.balloon(line);
    this.bare(line);
  }

  /** A line without a word that heads it: a row as a print words it, or nothing. */
  private bare(line: Line): void {
    const { r, body } = line;
    const here = r.here;
    this.unitFirst(body, null, true);
    try {
      this.rows++;
      this.row(line);
    } catch (e) {
      if (!(e instanceof CalloutError)) throw e;
      this.rows--;
      throw new CalloutError(
        indent(body),
        `${JSON.stringify(here)} starts no line of a card`,
        "JOB, UNIT, MATERIAL, STOCK, LET, TOLERANCES, #, OUTLINE, PLANE, LEAVE, CUT, REPEAT, MIRROR or CHECK",
        e.instead,
      );
    }
  }

  /** The unit stands before any number: said once. */
  private unitFirst(body: string, head: Head | null, isRowOrBalloon: boolean): void {
    if (this.unitSeen || this.unitMissed) return;
    const hasNumbers =
      head === "MATERIAL" ? /density/i.test(body) : head === null ? isRowOrBalloon : head !== "JOB" && head !== "UNIT";
    if (!hasNumbers) return;
    this.unitMissed = true;
    throw new CalloutError(
      indent(body),
      "the unit must come before any number",
      unitNames.map((u) => `UNIT ${u}`).join(" or "),
    );
  }

  private row({ r, body, at }: Line): void {
    const suggest = this.errors.length < MOST_SUGGESTED;
    const where = { earlier: this.part.rows, unit: this.job.unit, suggest };
    const { row, more, columns } = readTypedRow(body, this.names, this.names.idOf(this.rows), this.named, where);
    r.pos = r.text.length;
    this.part.rows.push(row);
    this.places.set(row.id, { line: at, columns });
    // A print's line may say several rows: they follow at once.
    for (const next of more) {
      const id = this.names.idOf(++this.rows);
      this.part.rows.push({ ...next, id });
      this.places.set(id, { line: at, columns: new Map() });
    }
  }

  private balloon({ r }: Line): void {
    r.skip();
    const m = /^#(\d{1,4})(?![\d.])/.exec(r.text.slice(r.pos));
    if (!m) return r.fail("a balloon number", undefined, r.pos + 1);
    const numberAt = r.pos;
    r.pos += m[0].length;
    const number = Number(m[1]);
    if (number < 1) r.fail("a number from 1", "a balloon has a number from 1", numberAt);
    if (this.job.balloons.some((o) => o.number === number))
      r.fail("another number", `balloon #${number} is there twice`, numberAt);
    this.job.balloons.push(...this.dimensions(r, number));
  }

  /** A line in the card's words, or as a print has it, which may be several dimensions. */
  private dimensions(r: Reader, number: number): Balloon[] {
    const from = r.pos;
    try {
      const one = readBalloon(r, number);
      if (!r.done) r.fail("the end of the line");
      return [one];
    } catch (e) {
      if (!(e instanceof CalloutError)) throw e;
      const printed = readLedgerLine(r.text.slice(from), number, this.numbered, this.named, this.job.unit);
      if (!printed.ok) throw e;
      r.pos = r.text.length;
      return printed.balloons;
    }
  }

  /** What each word that heads a line begins. */
  private readonly heads: Record<Head, (line: Line) => void> = {
    JOB: ({ r }) => this.title(r),
    UNIT: (line) => this.unit(line),
    MATERIAL: ({ r }) => {
      const material: Job["material"] = { name: r.quoted(120) };
      if (r.take("DENSITY")) material.density = r.number("density", "a density in g/cm³");
      if (this.part === this.parts[0]) this.job.material = material;
      else this.part.material = material;
    },
    STOCK: ({ r }) => {
      this.part.stock = readStock(r);
    },
    CHECK: ({ r }) => {
      const check = readCheck(r, this.names);
      if (this.part === this.parts[0]) this.job.checks.push(check);
      else (this.part.checks ??= []).push(check);
    },
    EDGES: ({ r }) => {
      r.want("BREAK");
      this.job.title.edgeBreak = r.number("edgeBreak", "the size of the break");
    },
    HOLD: ({ r }) => this.holding(r),
    LET: ({ r }) => {
      const at = r.pos;
      const n = readLet(r);
      if (this.job.names.some((o) => o.name.toLowerCase() === n.name.toLowerCase()))
        r.fail("another name", `${n.name} is named twice`, at);
      this.job.names.push(n);
    },
    TOLERANCES: ({ r }) => readTolerances(r, this.job.title),
    TOLERANCE: ({ r }) => readTolerances(r, this.job.title),
    OUTLINE: (line) => this.outline(line),
    PLANE: ({ r }) => this.plane(r),
    PART: ({ r }) => this.startPart(r),
    PLACE: ({ r }) => this.place(r),
    SETUP: ({ r }) => this.setup(r),
  };

  private plane(r: Reader): void {
    const at = r.pos;
    const name = r.quoted(120).trim();
    if (!name) r.fail("a name in double quotes", "the plane has no name", at);
    const planes = (this.part.planes ??= []);
    if (planes.some((p) => p.name.toLowerCase() === name.toLowerCase()))
      r.fail("another name", `plane "${name}" is there twice`, at);
    planes.push({
      id: `${prefixOf(this.parts.indexOf(this.part))}p${planes.length + 1}`,
      name,
      making: readPlaneMaking(r, this.names),
    });
  }

  private title(r: Reader): void {
    this.job.name = r.quoted(120).trim() || "Untitled";
    if (!r.take("REV")) return;
    r.skip();
    const rev = /^"([^"]*)"|^[^\s"]+/.exec(r.text.slice(r.pos));
    if (!rev) return r.fail("a revision");
    const revision = rev[1] ?? rev[0];
    if (revision.length > 20) return r.fail("at most 20 letters", "a revision is a letter or a few");
    this.job.revision = revision;
    r.pos += rev[0].length;
  }

  private unit({ r, body }: Line): void {
    const unit = unitNames.find((u) => r.take(u.toUpperCase()));
    if (!unit) return r.fail(unitNames.join(" or "));
    if (this.unitSeen) r.fail("one UNIT line", "the unit is given twice", indent(body));
    this.job.unit = unit;
    this.unitSeen = true;
  }

  private outline({ r, at: line }: Line): void {
    const at = r.pos;
    const name = r.quoted(120).trim();
    if (!name) r.fail("a name in double quotes", "the outline has no name", at);
    if (this.part.outlines.some((o) => o.name.toLowerCase() === name.toLowerCase()))
      r.fail("another name", `outline "${name}" is there twice`, at);
    this.open = {
      outline: { id: `${prefixOf(this.parts.indexOf(this.part))}o${this.part.outlines.length + 1}`, name, items: [] },
      lines: [],
      at: line,
    };
    this.part.outlines.push(this.open.outline);
    this.outlineLines.set(this.open.outline.id, this.open.lines);
  }

  /** `SETUP 10 MILL UP TOP ...`: of the workpiece, wherever it stands. */
  private setup(r: Reader): void {
    const at = r.pos;
    if (this.hold) r.fail("either HOLD or SETUP lines", "HOLD has said how the only setup holds", at);
    const setup = readSetup(r, namesOfPart(prefixOf(0)));
    if (this.setups.some((s) => s.op === setup.op)) r.fail("another number", `setup ${setup.op} is there twice`, at);
    this.setups.push(setup);
  }

  private holding(r: Reader): void {
    if (this.setups.length) r.fail("HOLD within a SETUP line", "setups have lines of their own here");
    r.want("VISE");
    const hold: Hold = { fixture: "vise", across: "y", grip: toNumberText("?"), up: "top" };
    this.hold = hold;
    while (!r.done) {
      if (r.take("GRIP")) hold.grip = r.number("grip", "a grip depth");
      else if (r.take("ACROSS"))
        hold.across = ({ X: "x", Y: "y" } as const)[r.takeOne(["X", "Y"] as const) ?? r.fail("X or Y")];
      else if (r.take("UP"))
        hold.up = ({ TOP: "top", BOTTOM: "bottom" } as const)[
          r.takeOne(["TOP", "BOTTOM"] as const) ?? r.fail("TOP or BOTTOM")
        ];
      else r.fail("GRIP, ACROSS or UP");
    }
  }
}
