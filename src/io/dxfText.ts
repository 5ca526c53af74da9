import { canonical, closedPolylines, isReadKind } from "./dxfCanonical";

/**
 * A DXF put right as far as it goes: entities that cannot be read are taken out and said, with the line of the file.
 */
interface CheckedDxf {
  /** Its blocks and entities, whole; empty when there is nothing to read. */
  text: string;
  /** What the file says its numbers are ($INSUNITS); 0 where it says nothing. */
  unitCode: number;
  problems: string[];
}

/**
 * Codes whose value is a real number, and whose value is a whole number, by the exchange file's own ranges (from
 * memory; ezdxf and the parser read what passes).
 */
const isReal = (c: number) =>
  (c >= 10 && c <= 59) ||
  (c >= 110 && c <= 149) ||
  (c >= 210 && c <= 239) ||
  (c >= 460 && c <= 469) ||
  (c >= 1010 && c <= 1059);
const isWhole = (c: number) =>
  (c >= 60 && c <= 79) ||
  (c >= 90 && c <= 99) ||
  (c >= 170 && c <= 179) ||
  (c >= 270 && c <= 289) ||
  (c >= 370 && c <= 389) ||
  (c >= 400 && c <= 409) ||
  (c >= 1060 && c <= 1071);
const isTruth = (c: number) => c >= 290 && c <= 299;
const MOST_SAID = 20;

interface Part {
  lines: string[];
  name: string;
  bad: boolean;
  section: string;
}

/**
 * Goes through the pairs of code and value. An entity with a value that is no number, or a code that is no code, is
 * left out;
 * a file that stops in the middle is ended. What is wrong is said with its line. Of the sections only blocks and
 * entities are kept:
 * tables hold nothing that is read here, and one that is cut short keeps a reader waiting for its end.
 */
export function checkDxf(text: string): CheckedDxf {
  // Text holds no zero bytes; the binary form does.
  if (text.includes("\0"))
    return { text: "", unitCode: 0, problems: ["the file is a binary DXF; save it as text (ASCII)"] };
  const problems: string[] = [];
  const { parts, ended, unitCode, lines } = partsOf(text, (line, what) => {
    if (problems.length < MOST_SAID) problems.push(`line ${line}: ${what}`);
    else if (problems.length === MOST_SAID) problems.push("more of the kind, not listed");
  });
  if (!parts.some((p) => p.name === "SECTION"))
    return { text: "", unitCode: 0, problems: [...problems, "the file is no DXF that can be read: it has no SECTION"] };
  if (!ended) problems.push(`line ${lines}: the file stops before its EOF; what was there is read`);
  if (!parts.some((p) => p.section === "ENTITIES"))
    problems.push("the file has no ENTITIES: there is nothing in it to read");
  const kept = parts.filter((p) => !p.bad && isReadKind(p.name));
  problems.push(...unread(parts.filter((p) => p.section === "ENTITIES" && !p.bad)));
  const out = [
    ...section("BLOCKS", closedBlocks(kept.filter((p) => p.section === "BLOCKS"))),
    ...section(
      "ENTITIES",
      kept.filter((p) => p.section === "ENTITIES" && p.name !== "BLOCK" && p.name !== "ENDBLK"),
    ),
    "0",
    "EOF",
  ];
  return { text: out.join("\n"), unitCode, problems };
}

const SEQEND: Part = { lines: ["0", "SEQEND"], name: "SEQEND", bad: false, section: "" };

/** Kinds of entities that are not read, with how many there are. */
function unread(parts: Part[]): string[] {
  const count = new Map<string, number>();
  // What belongs to an entity or ends a section is none by itself.
  for (const p of parts)
    if (!isReadKind(p.name) && !["SECTION", "ENDSEC", "EOF", "ATTRIB"].includes(p.name))
      count.set(p.name, (count.get(p.name) ?? 0) + 1);
  return [...count].slice(0, MOST_SAID).map(([name, n]) => `${n} ${name.slice(0, 30)} left out: no lines or arcs`);
}

const section = (name: string, parts: Part[]): string[] => {
  const out = ["0", "SECTION", "2", name];
  for (const p of closedPolylines(parts, SEQEND)) for (const l of canonical(p.name, p.lines)) out.push(l);
  out.push("0", "ENDSEC");
  return out;
};

/** Every BLOCK has its end: one that lost it is ended where the next begins. */
function closedBlocks(parts: Part[]): Part[] {
  const end: Part = { lines: ["0", "ENDBLK"], name: "ENDBLK", bad: false, section: "BLOCKS" };
  const out: Part[] = [];
  let open = false;
  for (const p of parts) {
    if (p.name === "BLOCK" && open) out.push(end);
    if (p.name === "ENDBLK" && !open) continue;
    if (p.name !== "BLOCK" && !open) continue;
    open = p.name !== "ENDBLK";
    out.push(p);
  }
  return open ? [...out, end] : out;
}

/** The file in parts, each from a code 0 to the next, and what it says of its unit. */
function partsOf(
  text: string,
  say: (line: number, what: string) => void,
): { parts: Part[]; ended: boolean; unitCode: number; lines: number } {
  const lines = text.split(/\r\n|\n|\r/);
  const parts: Part[] = [];
  let within = "";
  let expectSection = false;
  let ended = false;
  let variable = "";
  let unitCode = 0;
  let i = 0;
  while (i + 1 < lines.length && !ended) {
    const code = lines[i].trim();
    const value = lines[i + 1];
    if (code === "" && lines.slice(i, i + 50).every((l) => l.trim() === "")) break;
    if (!/^-?\d{1,4}$/.test(code)) {
      say(
        i + 1,
        `${JSON.stringify(code.slice(0, 30))} is no group code; the rest of its ${parts.at(-1)?.name ?? "part"} is left out`,
      );
      if (parts.length) parts[parts.length - 1].bad = true;
      i = nextEntity(lines, i + 1);
      continue;
    }
    const c = Number(code);
    const word = value.trim();
    if (c === 0) {
      expectSection = word === "SECTION";
      if (word === "ENDSEC" || word === "SECTION") within = "";
      ended = word === "EOF";
      parts.push({ lines: [], name: word, bad: false, section: within });
    } else if (expectSection && c === 2) {
      within = word;
      expectSection = false;
    }
    if (c === 9) variable = word;
    else if (c === 70 && variable === "$INSUNITS" && /^\d+$/.test(word)) unitCode = Number(word);
    const part = parts[parts.length - 1];
    if (part && wrongValue(c, word) && (within === "ENTITIES" || within === "BLOCKS")) {
      say(i + 2, `${JSON.stringify(word.slice(0, 30))} is no number (code ${c}); this ${part.name} is left out`);
      part.bad = true;
    } else part?.lines.push(code, value);
    i += 2;
  }
  return { parts, ended, unitCode, lines: lines.length };
}

/** The line where the next entity begins: a code 0 with a name after it. */
function nextEntity(lines: string[], from: number): number {
  let i = from;
  while (i + 1 < lines.length && !(lines[i].trim() === "0" && /^[A-Z0-9_]*[A-Z][A-Z0-9_]*$/.test(lines[i + 1].trim())))
    i++;
  return i;
}

const wrongValue = (code: number, word: string): boolean =>
  (isReal(code) && !/^[-+]?(\d+\.?\d*|\.\d+)([eE][-+]?\d+)?$/.test(word)) ||
  (isWhole(code) && !/^[-+]?\d+$/.test(word)) ||
  (isTruth(code) && !/^[01]$/.test(word));
