import { inCallout, type NumberText } from "../number";
import type { OutlineItem } from "../outline/items";
import type { RowNames } from "./grammar";
import type { Some, XY } from "./outlineLines";

const n = (t: NumberText) => inCallout(t);
const dia = (p: { diameter?: true }) => (p.diameter ? "⌀" : "");
const xy = (p: XY) => `${dia(p)}${n(p.x)},${n(p.y)}`;
const part = (p: Some) =>
  p.x !== undefined && p.y !== undefined
    ? `${dia(p)}${n(p.x)},${n(p.y)}`
    : p.x !== undefined
      ? `X ${dia(p)}${n(p.x)}`
      : `Y ${n(p.y!)}`;
const at = (p: { at?: XY; turn?: NumberText }) =>
  `${p.at ? ` AT ${xy(p.at)}` : ""}${p.turn === undefined ? "" : ` TURN ${n(p.turn)}`}`;
const name = (t: string) => `"${t.replace(/"/g, "”")}"`;

/** One line of an outline's block, canonical; every number as it was typed. */
export function writeOutlineItem(i: OutlineItem, names: RowNames): string {
  switch (i.item) {
    case "text":
      return `TEXT "${i.text.replace(/"/g, "”")}" HEIGHT ${n(i.height)}${i.font === "mono" ? " MONO" : ""}${i.align ? ` ${i.align.toUpperCase()}` : ""}${i.around ? ` AROUND ⌀${n(i.around.diameter)}${i.around.from === undefined ? "" : ` FROM ${n(i.around.from)}`}${i.around.inside ? " INSIDE" : ""}` : ""}${at(i)}`;
    case "face":
      return `FACE ${i.face.toUpperCase()} ${i.face === "floor" ? "OF" : "AFTER"} ${names.numberOf(i.row)}${at(i)}`;
    case "edges":
      return `EDGES ${{ mouthOf: "MOUTH OF", floorOf: "FLOOR OF", outerTop: "OUTER TOP AFTER", outerBottom: "OUTER BOTTOM AFTER" }[i.edges]} ${names.numberOf(i.row)}${at(i)}`;
    case "section":
      return `SECTION ${i.axis} ${n(i.at)} AFTER ${names.numberOf(i.row)}`;
    case "trim":
      return `TRIM AT ${xy(i.at)}${i.against ? ` AGAINST ${name(i.against)}` : ""}`;
    case "extend":
      return `EXTEND ${i.end.toUpperCase()} ${i.length === undefined ? `AGAINST ${name(i.against!)}` : `BY ${n(i.length)}`}`;
    case "break":
      return `BREAK AT ${xy(i.at)}`;
    case "mend":
      return `MEND${i.gap === undefined ? "" : ` ${n(i.gap)}`}`;
    case "start":
      return `START ${xy(i.at)}`;
    case "line":
    case "arc": {
      const words = [
        i.to ? `TO ${part(i.to)}` : "",
        i.by ? `BY ${part(i.by)}` : "",
        ...(i.item === "line"
          ? [i.length === undefined ? "" : `L ${n(i.length)}`, i.angle === undefined ? "" : `A ${n(i.angle)}`]
          : [
              i.radius === undefined ? "" : `R ${n(i.radius)}`,
              i.centre ? `CENTRE ${xy(i.centre)}` : "",
              i.sweep === undefined ? "" : `SWEEP ${n(i.sweep)}`,
              i.side.toUpperCase(),
              i.long ? "LONG" : "",
            ]),
        i.tangent ? "TANGENT" : "",
        i.near ? `NEAR ${xy(i.near)}` : "",
        i.close ? "CLOSE" : "",
      ].filter(Boolean);
      return i.item === "line" && words.length === 1 && i.close ? "CLOSE" : [i.item.toUpperCase(), ...words].join(" ");
    }
    case "relation":
      return `${i.relation.toUpperCase()} ${i.relation === "symmetric" ? `${i.of[0]} ${i.of[1]} ABOUT ${i.of[2]}` : i.relation === "midpoint" ? `${i.of[0]} OF ${i.of[1]}` : i.of.join(" ")}`;
    case "dimension":
      return `${i.dimension.toUpperCase()} ${i.of.join(" ")} ${n(i.value)}`;
    case "circle":
      return `CIRCLE ⌀${n(i.diameter)}${at(i)}`;
    case "rectangle":
      return `RECTANGLE ${n(i.length)} X ${n(i.width)}${i.radius === undefined ? "" : ` R${n(i.radius)}`}${i.corner ? " CORNER" : ""}${at(i)}`;
    case "slot":
      return `SLOT ${i.centres ? "CENTRES " : ""}${n(i.length)} X ${n(i.width)}${at(i)}`;
    case "polygon":
      return `POLYGON ${n(i.sides)} ${i.across} ${n(i.size)}${i.radius === undefined ? "" : ` R${n(i.radius)}`}${at(i)}`;
    case "star":
      return `STAR ${n(i.points)} OD ${n(i.outer)} ID ${n(i.inner)}${at(i)}`;
    case "ring":
      return `RING OD ${n(i.outer)} ID ${n(i.inner)}${at(i)}`;
    case "link":
      return `LINK ⌀${n(i.first)} AT ${xy(i.firstAt)} ⌀${n(i.second)} AT ${xy(i.secondAt)}`;
    case "segment":
      return `SEGMENT ⌀${n(i.diameter)} ${i.height !== undefined ? `HEIGHT ${n(i.height)}` : `CHORD ${n(i.chord!)}`}${at(i)}`;
    case "use":
      return `USE ${name(i.outline)}${at(i)}`;
    case "join":
    case "cutout":
    case "overlap":
      return `${i.item.toUpperCase()} ${name(i.outline)}${at(i)}`;
    case "offset":
      return `OFFSET ${n(i.by)}${i.both ? " BOTH" : ""}`;
    case "mirror":
      return `MIRROR ${typeof i.about === "string" ? i.about : `${xy(i.about.from)} TO ${xy(i.about.to)}`}${i.keep ? " KEEP" : ""}`;
    case "repeat": {
      const p = i.pattern;
      const body =
        p.kind === "around"
          ? `${n(p.n)}X${p.centre ? ` AROUND ${xy(p.centre)}` : ""}${p.step === undefined ? "" : ` STEP ${n(p.step)}`}`
          : p.kind === "line"
            ? `LINE ${n(p.n)} BY ${n(p.by)}${p.turn === undefined ? "" : ` TURN ${n(p.turn)}`}`
            : `GRID ${n(p.nx)} ${n(p.ny)} BY ${n(p.dx)} ${n(p.dy)}`;
      return `REPEAT ${body}${i.skip?.length ? ` SKIP ${i.skip.join(" ")}` : ""}`;
    }
    case "fullRound":
      return `${i.off ? "OFF " : ""}FULLROUND ${i.between.join(" ")}`;
    case "corners":
      return `${i.off ? "OFF " : ""}${i.treatment.toUpperCase()} ${n(i.size)}${i.placement ? ` ${i.placement.toUpperCase()}` : ""} ${typeof i.which === "string" ? i.which.toUpperCase() : `AT ${i.which.join(" ")}`}`;
  }
}
