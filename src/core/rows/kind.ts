import type { ZodObject, ZodType } from "zod";
import type { CalloutGrammar } from "../grammar/grammar";
import type { Reader } from "../grammar/reader";
import type { NumberText, ByFigures } from "../number";
import type { Outline, Segment } from "../outline";
import type { Result } from "../base/result";
import type { Frame, Side, Vec2, Vec3 } from "../geometry/vec";
import type { Feature, Traits } from "./feature";
import type { OutlineSource } from "./outlineSource";

/** The same shape with every number text replaced by its value: millimetres, radians or plain. */
export type Resolved<T> = T extends NumberText
  ? number
  : T extends (infer U)[]
    ? Resolved<U>[]
    : T extends object
      ? { [K in keyof T]: Resolved<T[K]> }
      : T;

/** An axis of the job, through a place; the turned rows' own. Angles about it count from the next axis round. */
export type Along = "x" | "y" | "z";
export type AxisPlace = { along: Along; at: Vec3 } | { row: string };

/** A resolved plane: where a row starts. `origin` is the job's own zero, used by leave rows. */
export type PlanePlace =
  | { on: Side; start: number }
  | { on: "floorOf" | "topOf"; row: string; start: number }
  | { on: "sideOf"; side: Side; row: string; start: number }
  | { on: "flatOf"; flat: number; row: string; start: number }
  | { on: "named"; plane: string; made: PlaneMade; start: number }
  | { on: "origin"; z: number }
  /** A plane that has been found already: of a copy, which carries its ends along. */
  | { on: "frame"; frame: Frame; start: number }
  /** Across an axis, its normal along it and its x turned by `from`. */
  | { on: "axis"; axis: AxisPlace; from: number; start: number }
  /** The round of a row, unrolled: x along its girth from an angle, y along its axis. */
  | { on: "roundOf"; row: string; angle: number; along: number; start: number };

/** A plane of the part or of a row of it. */
export type SeatedPlane = Exclude<PlanePlace, { on: "origin" } | { on: "axis" } | { on: "frame" }>;

/** What a named plane is made of, its numbers worked out. */
export type PlaneMade =
  | { is: "offset"; by: number; from: PlanePlace }
  | { is: "midway"; a: PlanePlace; b: PlanePlace }
  | { is: "tilt"; angle: number; about: Along; at: Vec3 }
  | { is: "tangent"; row: string; angle: number }
  | { is: "index"; angle: number; about: Along }
  | { is: "copy"; copy: number; row: string; from: PlanePlace };

/** Where a row ends: at a depth, through everything, at the next void or material, at a plane and so far past it. */
export type Extent = number | "thru" | "next" | EndPlane;
export interface EndPlane {
  to: PlanePlace;
  past: number;
}

/** A point of a revolved profile: radius at a depth below the plane. `thru` stands for the far side of the part. */
export interface ProfilePoint {
  r: number;
  z: number | "thru";
}

/** One tool solid as plain data, in the coordinates of its plane, depths counted into the material. */
export interface PrismBody {
  body: "prism";
  outline: Outline;
  /** Further loops of the same outline, each a solid of its own. */
  more?: Outline[];
  depth: Extent;
  /** Of what is left: half to each side of its plane, or into the material side. */
  way?: "both" | "down";
  /** Its walls lean inwards by this angle from its plane on. */
  draft?: number;
  /** Ends that are rounded over the whole height of the prism. */
  ends?: RoundedEnd[];
}
/** An end of a strip that is a full round as its plate is seen: its middle, the way it looks, the strip's thickness. */
export interface RoundedEnd {
  at: Vec2;
  out: Vec2;
  thick: number;
}

export type Body =
  | PrismBody
  /** `end`: its last depth is not known before it is placed; `tip` is the cone's length below it. */
  | { body: "revolved"; profile: ProfilePoint[]; end?: { extent: Exclude<Extent, number | "thru">; tip: number } }
  /** What lies on one side of an open chain, off the edge of the part. */
  | { body: "open"; chain: Segment[]; side: "left" | "right"; depth: Extent }
  /**
   * Half profiles turned about the axis: x is the radius, y the height over the frame. An open chain is closed
   * outwards, or to the axis.
   */
  | { body: "turned"; outlines: Outline[]; chain?: { segments: Segment[]; side: "outside" | "bore" }; sweep: number }
  /** The groove of a pointed cutter along chains: half its included angle, and its depth. */
  | { body: "vee"; chains: Segment[][]; halfAngle: number; depth: number }
  /** A round or ring section along lines and tangent arcs of the plane. */
  | { body: "tube"; chain: Segment[]; outer: number; inner: number }
  /** A chain thickened evenly, prolonged to the material at its ends and carried down from the plane. */
  | { body: "rib"; chain: Segment[]; thick: number; depth: number | "next" }
  /** Outlines laid round the round of a row: so high over it, or so deep into it. */
  | { body: "wrapped"; row: string; outlines: Outline[]; height: number }
  /** The groove of a thread round the shaft of a row: its basic profile, so far along it. */
  /** Chains of a pointed cutter laid round the round of a row. */
  | { body: "wrappedVee"; row: string; chains: Segment[][]; halfAngle: number; depth: number }
  | { body: "helix"; row: string; major: number; pitch: number; start: number; length: number }
  /** A ring round the shaft of a row, down to a radius, or down to teeth of a pitch along its girth. */
  /** A solid out of a file, laid on its plane as it is; `content` tells one file from another, null where it is not kept. */
  | { body: "imported"; file: string; content: string | null }
  | { body: "collar"; row: string | null; inner: number | { pitch: number }; start: number; width: number };

export type EdgeChoice =
  | { edge: "outerTop" | "outerBottom" | "vertical"; row?: string }
  | { edge: "allSharp" }
  | { edge: "mouthOf" | "floorOf"; row: string }
  | { edge: "along"; along: Along; row?: string }
  | { edge: "between"; a: PlanePlace; b: PlanePlace }
  | { edge: "at"; at: Vec3 };

/** How a repeat puts its copies; `skip` are copies left out, counted from the original, which is 1. */
export type Copies =
  | { by: "around"; axis: AxisPlace; count: number; step: number }
  | { by: "line"; along: Along; count: number; step: number }
  | { by: "grid"; nx: number; ny: number; dx: number; dy: number }
  | { by: "like"; row: string }
  | { by: "mirror"; about: { plane: PlanePlace } | { along: Along } | { middleOf: string } };

/** A row as plain data: what it adds or takes, where; the kernel needs nothing else. */
export type Recipe =
  | { op: "leave"; plane: PlanePlace; body: Body; places: Vec2[] }
  | { op: "cut"; plane: PlanePlace; body: Body; places: Vec2[] }
  | { op: "face"; plane: PlanePlace; depth: number }
  | { op: "step"; plane: PlanePlace; side: Side; width: number; depth: number }
  /** `second`: the leg across, where it is given instead of an angle. */
  | { op: "edges"; treatment: "chamfer" | "round"; size: number; angle: number; edges: EdgeChoice[]; fitting?: true }
  | { op: "shell"; thick: number; open: PlanePlace[] }
  /** Said of the part and no solid of its own: a cosmetic thread, a knurl that is rolled. */
  | { op: "said"; on: { row: string | null }; from: number; length: number }
  | { op: "repeat"; rows: string[]; copies: Copies; skip: number[] };

/** A row that begins on a plane and is cut or left there. */
export type SeatedRecipe = Extract<Recipe, { plane: PlanePlace }>;
export const isSeated = (recipe: Recipe | null): recipe is SeatedRecipe => recipe !== null && "plane" in recipe;

/**
 * What a field of the editor is, in the order a print gives it. Numbers come from the callout grammar; this adds the
 * choices.
 */
export type Field =
  | { field: "number"; path: string; label: string; optional?: boolean }
  | {
      field: "choice";
      path: string;
      label: string;
      options: { value: string; label: string; set: Record<string, unknown> }[];
      /** Which of them a row has, where that does not stand at the path itself. */
      chosen?(body: object): string;
    }
  | { field: "thread"; path: string; label: string }
  | { field: "outline"; path: string; label: string }
  | { field: "place" }
  | { field: "pattern" }
  /** A plane; without a path where the row starts, which a leave row may leave open. */
  | { field: "plane"; path?: string; label?: string }
  | { field: "standing" }
  /** Another row, by its number; several of them. */
  | { field: "row"; path: string; label: string; optional?: boolean }
  | { field: "rows"; path: string; label: string }
  /** One copy of a repeat, which can be given figures of its own. */
  | { field: "copy" }
  | { field: "edges" };

/** The word a row begins with. */
export const verbs = ["leave", "cut", "repeat", "mirror"] as const;
export type Verb = (typeof verbs)[number];

/** All that is known about one kind of row, in one folder. */
export interface RowKind<T extends { kind: string }> {
  kind: T["kind"];
  verb: Verb;
  /** What people call it. */
  label: string;
  /** What is known of it before its numbers are. */
  traits?: Traits;
  schema: ZodObject & ZodType<T>;
  /** What a row of this kind holds before its callout is read. */
  blank: () => Partial<T>;
  /** One line to start from, for the button that adds such a row. */
  example: ByFigures<string>;
  callout: CalloutGrammar;
  /** Whether its callout stands at the reading point, where its head, past a count, does not say so itself. */
  starts?(r: Reader): boolean;
  recipe(row: Resolved<T>, raw: T, outlines?: OutlineSource): Result<Recipe>;
  /** What it is to those who judge, plan, prove or draw it; null where its numbers make none. */
  feature(row: Resolved<T>): Feature | null;
  /** Volume of one copy of a lone row in a big block, mm³; null where it depends on what is around it. */
  closedForm(row: Resolved<T>): number | null;
  /** What the callout leaves unsaid and is taken all the same, in words; shown beside it. */
  unsaid?(row: T): string | null;
  fields: Field[];
  /** Fields that say nothing of a row as it is. */
  idle?(row: T): Field["field"][];
}
