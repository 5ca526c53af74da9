import type { MaterialGroup } from "./materials";
import { table } from "./table";

export type CutterMaterial = "high speed steel" | "carbide";

/**
 * Where one starts: surface speed of an end mill in metres a minute, and feed a tooth as a share of its diameter, each from
 * and to. The cutter maker's figures, the machine and the way the part is held decide.
 */
export interface StartingValues {
  group: MaterialGroup;
  /** What of the group is meant. */
  what: string;
  cutter: CutterMaterial;
  speed: readonly [from: number, to: number];
  feedShare: readonly [from: number, to: number];
}

const lines = `P | unalloyed and low alloy steel, to 200 HB | 25 35 | .004 .008 | 90 160 | .005 .01
P | alloy and tool steel, to 300 HB | 15 25 | .003 .006 | 60 110 | .004 .008
M | free cutting stainless | 20 30 | .004 .007 | 70 120 | .005 .008
M | austenitic, duplex and hardening stainless | 12 20 | .003 .006 | 45 90 | .004 .007
K | grey iron | 20 30 | .005 .009 | 80 140 | .006 .01
K | ductile iron | 15 25 | .004 .008 | 70 120 | .005 .009
N | aluminium and magnesium | 70 150 | .008 .015 | 200 500 | .008 .02
N | brass, bronze and copper | 40 70 | .006 .012 | 120 250 | .006 .012
S | titanium | 8 15 | .003 .006 | 35 65 | .004 .007
S | nickel alloys | 4 8 | .003 .005 | 20 40 | .003 .006
O | plastics | 60 150 | .008 .02 | 150 400 | .008 .025`;

export const startingValues = table<StartingValues>({
  source: "starting values; common practice, no source: the cutter maker's figures count",
  checked: "carbide over high speed steel, and falling from soft to hard, in book.test.ts",
  rows: lines.split("\n").flatMap((line) => {
    const [group, what, speed, feed, hardSpeed, hardFeed] = line.split("|").map((part) => part.trim());
    const pair = (text: string): [number, number] => {
      const [from, to] = text.split(" ").map(Number);
      return [from, to];
    };
    const shared = { group: group as MaterialGroup, what };
    return [
      { ...shared, cutter: "high speed steel" as const, speed: pair(speed), feedShare: pair(feed) },
      { ...shared, cutter: "carbide" as const, speed: pair(hardSpeed), feedShare: pair(hardFeed) },
    ];
  }),
});
