// Draws docs/layers.svg from the imports as they are: every folder of src/ and of src/core/, and how often each takes from which.
// `npm run layers`
import { existsSync, readFileSync, readdirSync, writeFileSync } from "node:fs";
import path from "node:path";

const root = new URL("../", import.meta.url).pathname;
const src = path.join(root, "src");
const filesIn = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((e) =>
    e.isDirectory()
      ? filesIn(path.join(folder, e.name))
      : /\.tsx?$/.test(e.name) && !/\.test\./.test(e.name)
        ? [path.join(folder, e.name)]
        : [],
  );
/** The box a file stands in: `core/outline`, `kernel`, `ui`. */
const boxOf = (file: string): string => {
  const parts = path.relative(src, file).split(path.sep);
  return parts[0] === "core" ? `core/${parts.length > 2 ? parts[1] : "result"}` : parts[0];
};
const arrows = new Map<string, number>();
const sizes = new Map<string, number>();
for (const file of filesIn(src)) {
  const from = boxOf(file);
  sizes.set(from, (sizes.get(from) ?? 0) + 1);
  for (const m of readFileSync(file, "utf8").matchAll(/from "((?:@\/|\.)[^"]+)"/g)) {
    const target = m[1].startsWith("@/") ? path.join(src, m[1].slice(2)) : path.resolve(path.dirname(file), m[1]);
    const to = boxOf(existsSync(target) ? path.join(target, "index.ts") : `${target}.ts`);
    if (to !== from && !to.startsWith("..")) arrows.set(`${from}>${to}`, (arrows.get(`${from}>${to}`) ?? 0) + 1);
  }
}
/** From what stands on nothing to what stands on everything, as docs/map.md has it. */
const order = [
  ["ui", "cli"],
  ["server"],
  ["kernel", "io"],
  ["core/mismatch", "core/reckon"],
  ["core/evaluate"],
  ["core/findings"],
  ["core/paths", "core/print"],
  ["core/hold", "core/stock"],
  ["core/engine"],
  ["core/balloons"],
  ["core/callout"],
  ["core/job"],
  ["core/rows"],
  ["core/outline"],
  ["core/grammar", "core/tables"],
  ["core/number", "core/geometry"],
  ["core/base"],
];
const [width, line, high] = [980, 78, 34];
const places = new Map<string, { x: number; y: number }>();
order.forEach((names, row) =>
  names.forEach((name, i) => places.set(name, { x: ((i + 1) * width) / (names.length + 1), y: 40 + row * line })),
);
const rank = (name: string) => order.findIndex((names) => names.includes(name));
const drawn = [...arrows].flatMap(([key, count]) => {
  const [from, to] = key.split(">");
  const [a, b] = [places.get(from), places.get(to)];
  if (!a || !b) return [];
  const up = rank(to) < rank(from);
  const bend = (a.x + b.x) / 2 + (rank(to) - rank(from) > 1 || up ? 26 : 0);
  const colour = up ? "#bd2f18" : "#5b5f63";
  return `<path d="M${a.x} ${a.y} Q${bend} ${(a.y + b.y) / 2} ${b.x} ${b.y}" fill="none" stroke="${colour}" stroke-width="${Math.min(4, 0.4 + count / 12).toFixed(2)}" opacity=".45"><title>${from} takes from ${to}: ${count}</title></path>`;
});
const boxes = [...places].map(
  ([name, p]) =>
    `<g><rect x="${p.x - 66}" y="${p.y - high / 2}" width="132" height="${high}" fill="#fffdf7" stroke="#22262b"/><text x="${p.x}" y="${p.y + 1}" text-anchor="middle">${name}</text><text x="${p.x}" y="${p.y + 12}" text-anchor="middle" class="s">${sizes.get(name) ?? 0} files</text></g>`,
);
const back = [...arrows.keys()].filter((k) => {
  const [from, to] = k.split(">");
  return places.has(from) && places.has(to) && rank(to) < rank(from);
});
const height = 40 + order.length * line;
writeFileSync(
  path.join(root, "docs", "layers.svg"),
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" font-family="sans-serif" font-size="13"><style>.s{font-size:9px;fill:#66655e}</style><rect width="${width}" height="${height}" fill="#f6f1e6"/>${drawn.join("")}${boxes.join("")}<text x="14" y="${height - 14}" class="s">drawn from the imports by npm run layers; an arrow goes down to what is taken from; in red: one that goes up (${back.length})</text></svg>\n`,
);
console.log(`docs/layers.svg: ${places.size} boxes, ${drawn.length} arrows, ${back.length} go up: ${back.join(", ")}`);
