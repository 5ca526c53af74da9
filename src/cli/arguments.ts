import path from "node:path";
import { parseArgs } from "node:util";
import { exportKinds } from "@/io/exportJob";

/** A flag of the headless command: a word after it, several of them, or none. */
type Flag = { type: "string"; multiple?: true } | { type: "boolean" };
const text: Flag = { type: "string" };
const yes: Flag = { type: "boolean" };

/** What each verb takes, and how it is said. */
const verbs = {
  check: { flags: { json: yes, fixes: yes, shop: text }, help: "check FILE [--json] [--fixes]" },
  format: { flags: {}, help: "format FILE" },
  explain: { flags: { json: yes, shop: text }, help: "explain FILE [--json]" },
  export: {
    flags: { to: text, out: text, newer: yes, part: text, all: yes, setup: text, shop: text },
    help: `export FILE --to ${exportKinds.join("|")} --out F [--newer] [--part NAME | --all | --setup OP]`,
  },
  derive: {
    flags: {
      jaws: yes,
      plate: yes,
      chuck: yes,
      setup: text,
      grip: text,
      clearance: text,
      relief: text,
      placement: text,
      spacer: text,
      across: text,
      shoulders: text,
      stations: text,
      pitch: text,
      setups: text,
      clamps: text,
      name: text,
      out: text,
      shop: text,
    },
    help: "derive FILE --jaws|--plate|--chuck --setup 10 [--grip G] [--clearance C] [--relief D] [--placement corner|wall|bisector] [--spacer S] [--across X|Y] [--shoulders both|left|right|none] [--stations 2x1] [--pitch 60x0] [--setups 10,20] [--clamps M6] [--name NAME] --out F.card",
  },
  outlines: {
    flags: { unit: text, from: text, layer: { type: "string", multiple: true }, mend: text },
    help: "outlines FILE.dxf|FILE.svg [--unit in|mm] [--from in|mm] [--layer NAME ...] [--mend GAP]",
  },
  table: { flags: { json: yes }, help: 'table "M10-6g" [--json]' },
} satisfies Record<string, { flags: Record<string, Flag>; help: string }>;
export type Verb = keyof typeof verbs;

export const USAGE = `usage:
${Object.values(verbs)
  .map((v) => `  npm run -s job -- ${v.help}`)
  .join("\n")}
--fixes: what would clear a remark, each tried on the solid first (longer).
check, explain, export and derive take --shop FILE.json: the shop's own figures, as the page of the shop keeps them.
table says what the tables know of a size: "M6 clearance", "25 H7", "keyway 28", "ISO 4762 M6", "DRILL #7"; lengths in mm.
FILE is a .card or a job's JSON document. --part: of a part other than the workpiece; --all: every part as a solid of one STEP file. --newer: DXF with polylines instead of R12 lines and arcs.
outlines prints the chains of a drawing as OUTLINE blocks of a card; --unit is the card's (mm), --from what the drawing's numbers are.`;

/** What was asked of the headless command. */
export interface Arguments {
  verb: Verb;
  file: string;
  /** What stands in the file's place, as it was typed. */
  said: string;
  /** The word after a flag; undefined where it is not there. */
  text(flag: string): string | undefined;
  all(flag: string): string[];
  has(flag: string): boolean;
}

/** Flags that name files: seen from where the command was called. */
const FILES = new Set(["out", "shop"]);

/** Reads the command's words, once; what it does not know is an error and nothing is done. @returns why not, in words */
export function argumentsOf(argv: string[], cwd: string): Arguments | string {
  const [verb, ...rest] = argv;
  if (!isVerb(verb)) return verb === undefined ? "a verb is missing" : `there is no verb ${verb}`;
  try {
    const { values, positionals } = parseArgs({
      args: rest,
      options: verbs[verb].flags as Record<string, Flag>,
      allowPositionals: true,
    });
    const [file, ...more] = positionals;
    if (file === undefined) return verb === "table" ? "what to look up is missing" : "a FILE is missing";
    if (more.length) return `${more[0]} is one FILE too many`;
    const seen = (flag: string, v: string) => (FILES.has(flag) ? path.resolve(cwd, v) : v);
    const list = (flag: string) => [values[flag] ?? []].flat().filter((v): v is string => typeof v === "string");
    return {
      verb,
      file: path.resolve(cwd, file),
      said: file,
      text: (flag) => list(flag).map((v) => seen(flag, v))[0],
      all: list,
      has: (flag) => values[flag] === true,
    };
  } catch (e) {
    return e instanceof Error ? e.message : String(e);
  }
}
const isVerb = (word: string | undefined): word is Verb => word !== undefined && Object.hasOwn(verbs, word);
