"use client";
import type { Trial } from "@/core/evaluate/triedFixes";
import type { LengthUnit } from "@/core/number";
import { create } from "zustand";
import type { Side, Vec3 } from "@/core/geometry/vec";
import type { Mesh } from "@/core/engine/kernel";
import type { ClaimedFaces } from "@/core/print/claims";
import type { Feature } from "@/core/job";
import type { OutlineText } from "@/core/outline/items";
import type { Evaluated, Picture, Planned } from "@/kernel/worker";

export const steps = ["print", "stock", "shape", "hold", "paths", "proof", "release"] as const;
export type Step = (typeof steps)[number];
export const stepName = (step: Step): string => step[0].toUpperCase() + step.slice(1);
export type ViewName = Side | "pictorial" | "section";

/** What a pick on the solid told. */
export interface Pick {
  point: Vec3;
  snapped: "corner" | "edge" | "face";
  face: number;
  row: string | null;
  role: string | null;
  area: number;
}

interface BenchState {
  step: Step;
  /** Which pane is shown where there is room for one. */
  front: "card" | "stage";
  view: ViewName;
  /** Plane of the section: which way it looks, and where along it. */
  section: { side: Side; at: number };
  /** The job the bench is laid for. */
  openFor: string | null;
  evaluated: Evaluated | null;
  /** Turn of the engine the evaluation is from. */
  evaluatedTurn: number;
  /** Whether what is shown is as the server kept it, until the engine has caught up. */
  checking: boolean;
  /** Counts how often the engine was told to go on where it had been stopped. */
  again: number;
  /** Paths of the last evaluation that has them; they come after it. */
  planned: Planned | null;
  /** The row the engine has come to, while it is at it. */
  atRow: { row: number; of: number } | null;
  /** Fixes as they came out when they were tried on the solid, by remark. */
  trials: ReadonlyMap<string, Trial>;
  /** How often the view was asked to fit what is there. */
  fits: number;
  busy: boolean;
  /** Milliseconds the engine has been at it; shown when it takes over a second. */
  busySince: number;
  engineProblem: string;
  picture: Picture | null;
  ghost: Mesh | null;
  selected: string | null;
  openRow: string | null;
  /** Row whose state is on the stage; null for the finished part. */
  showRow: string | null;
  picked: Pick | null;
  measuring: boolean;
  measured: Pick[];
  blink: boolean;
  printOpacity: number;
  /** How strong the print shows under an outline that is traced from it. */
  traceOpacity: number;
  showStock: boolean;
  unitShown: LengthUnit | null;
  help: boolean;
  focusRow: string | null;
  /** Groups of rows that are folded to one line. */
  folded: readonly string[];
  /** Faces a claim of the balloon that is looked at was read from; null for none. */
  claimed: ClaimedFaces[] | null;
  /** Balloon looked at, on the print and in the ledger alike. */
  balloon: number | null;
  /** Balloon whose measurement is being picked on the stage, and the first face picked. */
  picking: { balloon: number; first: Feature | null } | null;
  /** Plane field of a row that takes the next flat picked on the stage. */
  planePick: { row: string; path: string } | null;
  /** Row of edges that takes the next edge picked on the stage. */
  edgePick: string | null;
  /** Named plane that is drawn on the stage. */
  planeShown: string | null;
  /** How the print lies over the part: see-through, or up to a line that is wiped across. */
  wipe: number | null;
  /** Outline that is open in its editor, and as it is being typed. */
  openOutline: string | null;
  outlineDraft: OutlineText | null;
  /** Place picked on the stage for the outline that is open, as text. */
  outlineSpot: { text: string; what: string } | null;
  /** The reckoner drawer. */
  reckoner: boolean;
  set(p: Partial<BenchState>): void;
}

/** What is on the bench right now; nothing of it is part of the job. */
export const useBench = create<BenchState>((set) => ({
  step: "shape",
  front: "card",
  view: "pictorial",
  section: { side: "front", at: 0.5 },
  openFor: null,
  evaluated: null,
  evaluatedTurn: 0,
  checking: false,
  again: 0,
  planned: null,
  atRow: null,
  trials: new Map(),
  fits: 0,
  busy: false,
  busySince: 0,
  engineProblem: "",
  picture: null,
  ghost: null,
  selected: null,
  openRow: null,
  showRow: null,
  picked: null,
  measuring: false,
  measured: [],
  blink: false,
  printOpacity: 0.5,
  traceOpacity: 0,
  showStock: true,
  unitShown: null,
  help: false,
  focusRow: null,
  folded: [],
  balloon: null,
  claimed: null,
  picking: null,
  planePick: null,
  edgePick: null,
  planeShown: null,
  wipe: null,
  reckoner: false,
  openOutline: null,
  outlineDraft: null,
  outlineSpot: null,
  set: (p) => set(p),
}));
