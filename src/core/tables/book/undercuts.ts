import { metricCoarse, metricFine } from "../threads";
import { sheet } from "../table";
import { cleaned, FROM_MEMORY, sheetPage, sizeBehind, UNSURE, type TableEntry, type TablePage } from "./page";

export const undercutPage = sheetPage({
  id: "undercut",
  title: "Undercuts at shoulders, forms E and F",
  standard: "DIN 509",
  source: UNSURE,
  example: "DIN 509 0.6x0.3",
  names: ["DIN 509 E", "DIN 509 F", "DIN 509", "UNDERCUT E", "UNDERCUT F", "UNDERCUT"],
  columns: ["radius", "depth", "width", "faceWidth", "faceDepth"],
  unit: 1,
  text: `0.2x0.1 .2 .1 1 .9 .1
  0.4x0.2 .4 .2 2 1.1 .1
  0.6x0.2 .6 .2 2 1.4 .1
  0.6x0.3 .6 .3 2.5 2.1 .2
  0.8x0.3 .8 .3 2.5 2.3 .2
  1x0.2 1 .2 2.5 1.8 .1
  1x0.4 1 .4 4 3.2 .3
  1.6x0.3 1.6 .3 4 3.1 .2
  2.5x0.4 2.5 .4 5 4.8 .3
  4x0.5 4 .5 7 6.4 .3`,
});

/** By pitch: run-out and distance to a shoulder outside, undercut outside, run-out and undercut inside, mm. */
const runOuts = sheet(
  [
    "runOut",
    "toShoulder",
    "under",
    "grooveMin",
    "grooveMax",
    "radius",
    "insideRunOut",
    "insideGrooveMin",
    "insideGrooveMax",
  ],
  1,
  `0.5 1.25 1.5 .8 .8 1.5 .2 2.8 2 2.7
  0.7 1.75 2.1 1.1 1.1 2.1 .4 3.8 2.8 3.8
  0.8 2 2.4 1.3 1.3 2.4 .4 4.2 3.2 4.2
  1 2.5 3 1.6 1.6 3 .6 5.1 4 5.2
  1.25 3.2 4 2 2 3.75 .6 6.2 5 6.7
  1.5 3.8 4.5 2.3 2.5 4.5 .8 7.3 6 7.8
  1.75 4.3 5.3 2.6 3 5.25 1 8.3 7 9.1
  2 5 6 3 3.4 6 1 9.3 8 10.3
  2.5 6.3 7.5 3.6 4.4 7.5 1.2 11.2 10 13
  3 7.5 9 4.4 5.2 9 1.6 13.1 12 15.2
  3.5 9 10.5 5 6.2 10.5 1.6 15.2 14 17.7
  4 10 12 5.7 7 12 2 16.8 16 20
  4.5 11 13.5 6.4 8 13.5 2 18.4 18 23
  5 12.5 15 7 9 15 2.5 20.8 20 26
  5.5 14 16.5 7.7 11 16.5 3.2 22.4 22 28
  6 15 18 8.3 11 18 3.2 24 24 30`,
);
/** Room over the thread in an inside undercut, mm, by its pitch. */
const insideRoom = (pitch: number): number => (pitch < 1 ? 0.3 : 0.5);

function entry(name: string, major: number, pitch: number): TableEntry | null {
  const row = runOuts.find((r) => Number(r.name) === pitch);
  if (!row) return null;
  const { runOut, toShoulder, grooveMin, grooveMax, radius, insideRunOut, insideGrooveMin, insideGrooveMax } = row;
  return {
    what: `DIN 76 ${name}`,
    standard: "DIN 76-1, regular",
    source: FROM_MEMORY,
    values: cleaned({
      runOut,
      toShoulder,
      grooveMin,
      grooveMax,
      grooveDiameter: major - row.under!,
      radius,
      insideRunOut,
      insideGrooveMin,
      insideGrooveMax,
      insideGrooveDiameter: major + insideRoom(pitch),
    }),
  };
}

export const runOutPage: TablePage = {
  id: "runOut",
  title: "Thread run-outs and undercuts",
  standard: "DIN 76-1",
  source: FROM_MEMORY,
  example: "DIN 76 M10",
  names: ["DIN 76"],
  entries: () => metricCoarse.rows.flatMap((t) => entry(t.name, t.major, t.pitch) ?? []),
  find(query) {
    const size = sizeBehind(query, ["DIN 76-1", "DIN 76", "THREAD RUN-OUT", "RUN-OUT", "RUNOUT"]);
    const name = size?.toUpperCase().replace(/\s/g, "");
    const t = [...metricCoarse.rows, ...metricFine.rows].find((r) => r.name === name);
    return t ? entry(t.name, t.major, t.pitch) : null;
  },
};
