import type { Size, Words } from "./words";

type Head = "block" | "round" | "hex" | "square" | "ring";
const heads: Record<string, Head> = {
  BLOCK: "block",
  BLK: "block",
  PLATE: "block",
  BAR: "block",
  BLANK: "block",
  PRISM: "block",
  FLAT: "block",
  RECTANGLE: "block",
  ROUND: "round",
  RD: "round",
  DISC: "round",
  DISK: "round",
  CYLINDER: "round",
  BOSS: "round",
  ROD: "round",
  SHAFT: "round",
  HEX: "hex",
  HEXAGON: "hex",
  SW: "hex",
  SQUARE: "square",
  SQ: "square",
  "□": "square",
  HUB: "round",
  SPIGOT: "round",
  PAD: "block",
  RING: "ring",
  TUBE: "ring",
  TUBING: "ring",
  PIPE: "ring",
  SLEEVE: "ring",
  BUSHING: "ring",
  WASHER: "ring",
};

/** A leave row from a print's words: `⌀4.250 X .750 THK`, `4 LG X 2 WIDE X .5 THK`, `HEX 1.5 AF X .5`. */
export function leaveText(w: Words, verbSaid: boolean): string | null {
  let head: Head | null = null;
  const heading = (size?: Size) => {
    w.takeOne(stock);
    while (w.here && w.here.is !== "quoted" && heads[w.here.text]) {
      // `.75 PLATE`: how thick it is.
      if (size && size.tag === null && w.here.text === "PLATE") size.tag = "high";
      const said = heads[w.next()!.text];
      // ROUND BAR is round, HEX BAR a hexagon.
      head = head && head !== "block" ? head : said;
      w.takeOne(stock);
    }
  };
  heading();
  if (!head && !verbSaid && !w.here) return null;
  if (w.here?.is === "quoted") return !head || head === "block" ? prismText(w) : null;
  // `1.00 DIA HUB X .25 HIGH`: the name may stand behind a size.
  const sizes = sizesBetweenX(w, heading);
  // What is so deep is cut, unless it is said to be left.
  if (!verbSaid && sizes?.some((s) => s.tag === "deep")) return null;
  // `8 THK PLATE "gauge plate"`: its outline behind its thickness.
  const [height, ...others] = sizes ?? [];
  const outline = head === "block" && height?.tag === "high" && !others.length ? w.quoted() : null;
  if (outline !== null) return withRest(`LEAVE PRISM ${outline} X ${height!.text}`, w);
  const shape = sizes && (verbSaid || head) && shapeOf(head, sizes);
  if (!shape) return null;
  // What it is of stands in the title block.
  if (verbSaid && w.takeOne(materials)) {
    while (w.takeOne(materials) || (w.here?.is === "word" && heads[w.here.text] && w.next()));
    if (!w.done) return null;
  }
  return withRest(`LEAVE ${shape}`, w);
}

/** What stands behind is read as it is. */
function withRest(text: string, w: Words): string {
  const rest = w.rest();
  return `${text}${rest && ` ${rest}`}`;
}

/** Said of a piece that is cut from stock as it is. */
const stock = ["STOCK", "STK"] as const;
const materials = [
  "AL",
  "MS",
  "CRS",
  "HRS",
  "SS",
  "ALUMINUM",
  "ALUMINIUM",
  "ALUM",
  "STEEL",
  "BRASS",
  "BRONZE",
  "STAINLESS",
  "SST",
  "TITANIUM",
  "COPPER",
] as const;

/** An outline carried up: `PLATE "gauge plate" X 8 THK`, `"gauge plate" 8 HIGH`. */
function prismText(w: Words): string | null {
  const outline = w.quoted();
  w.take("X");
  const height = outline === null ? null : w.size();
  if (!height || (height.tag !== null && height.tag !== "high")) return null;
  return withRest(`LEAVE PRISM ${outline} X ${height.text}`, w);
}

/** Numbers with an X, a comma or nothing between them; `behind` takes what may stand behind each. */
export function sizesBetweenX(w: Words, behind?: (size: Size) => void): Size[] | null {
  const sizes: Size[] = [];
  for (;;) {
    const save = w.mark();
    const size = w.size();
    if (!size || (size.tag === "R" && sizes.length)) {
      w.back(save);
      return sizes.length ? sizes : null;
    }
    sizes.push(size);
    behind?.(size);
    if (!w.take("X") && !w.take("BY")) w.take(",");
  }
}

function shapeOf(head: Head | null, sizes: Size[]): string | null {
  const tagged = (tag: Size["tag"]) => sizes.find((s) => s.tag === tag)?.text;
  const others = (...tags: Size["tag"][]) => sizes.filter((s) => !tags.includes(s.tag)).map((s) => s.text);
  const od = tagged("OD") ?? (head === "ring" ? tagged("⌀") : undefined);
  const wall = tagged("wall");
  const id = tagged("ID") ?? (od && wall ? `(${od}-2*${wall})` : undefined);
  if (od && id) {
    const [height, ...more] = others("OD", "ID", "⌀", "wall");
    return height && !more.length ? `RING OD ${od} ID ${id} X ${height}` : null;
  }
  const af = tagged("AF"),
    ac = tagged("AC");
  if (head === "hex" || ((af || ac) && head === "square")) {
    const [first, second, ...more] = af || ac ? [af ?? ac, ...others("AF", "AC")] : others();
    const sides = head === "hex" ? 6 : 4;
    return first && second && !more.length ? `POLYGON ${sides} ${ac ? "AC" : "AF"} ${first} X ${second}` : null;
  }
  if (head === "square") {
    const [side, height, ...more] = others();
    return side && height && !more.length ? `BLOCK ${side} X ${side} X ${height}` : null;
  }
  const diameter = tagged("⌀") ?? (od && sizes.length === 2 ? od : undefined);
  if (diameter || head === "round") {
    const [height, ...more] = diameter ? others("⌀", "OD") : others().slice(1);
    if (!height || more.length || sizes.length !== 2) return null;
    return `ROUND ⌀${diameter ?? sizes[0].text} X ${height}`;
  }
  return blockOf(sizes);
}

/** Length, width and height by their words; what has none keeps its place among the rest. */
function blockOf(sizes: Size[]): string | null {
  if (sizes.length !== 3 || sizes.some((s) => s.tag && !["long", "wide", "high", "deep"].includes(s.tag))) return null;
  const places: (string | undefined)[] = ["long", "wide", "high"].map((tag) => sizes.find((s) => s.tag === tag)?.text);
  const left = sizes.filter((s) => !["long", "wide", "high"].includes(s.tag ?? ""));
  if (places.filter(Boolean).length + left.length !== 3) return null;
  return `BLOCK ${places.map((p) => p ?? left.shift()!.text).join(" X ")}`;
}
