import type { ZodObject, ZodType } from "zod";
import type { CalloutGrammar } from "../grammar/grammar";
import type { Reader } from "../grammar/reader";
import type { NumberText } from "../number";
import type { Outline, Segment } from "../outline";
import type { Result } from "../base/result";
import type { Side, Vec2 } from "../geometry/vec";
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

/** A resolved plane: where a cut starts. `origin` is the job's own zero, used by leave rows. */
export type PlanePlace =
  { on: Side; start: number } | { on: "floorOf" | "topOf"; row: string; start: number } | { on: "origin"; z: number };

/** A point of a revolved profile: radius at a depth below the plane. `thru` stands for the far side of the part. */
export interface ProfilePoint {
  r: number;
  z: number | "thru";
}

/** One tool solid as plain data, in the coordinates of its plane, depths counted into the material. */
export type Body =
  | { body: "prism"; outline: Outline; more?: Outline[]; depth: number | "thru" }
  | { body: "revolved"; profile: ProfilePoint[] }
  /** What lies on one side of an open chain, off the edge of the part. */
  | { body: "open"; chain: Segment[]; side: "left" | "right"; depth: number | "thru" }
  /**
   * Half profiles turned about the axis: x is the radius, y the height over the frame. An open chain is closed
   * outwards, or to the axis.
   */
  | { body: "turned"; outlines: Outline[]; chain?: { segments: Segment[]; side: "outside" | "bore" }; sweep: number }
  /** The groove of a pointed cutter along chains: half its included angle, and its depth. */
  | { body: "vee"; chains: Segment[][]; halfAngle: number; depth: number };

export type EdgeChoice =
  { edge: "outerTop" | "outerBottom" | "vertical" | "allSharp" } | { edge: "mouthOf" | "floorOf"; row: string };

/** A row as plain data: what it adds or takes, where; the kernel needs nothing else. */
export type Recipe =
  | { op: "leave"; plane: PlanePlace; body: Body; places: Vec2[] }
  | { op: "cut"; plane: PlanePlace; body: Body; places: Vec2[] }
  | { op: "face"; plane: PlanePlace; depth: number }
  | { op: "step"; plane: PlanePlace; side: Side; width: number; depth: number }
  | { op: "edges"; treatment: "chamfer" | "round"; size: number; angle: number; edges: EdgeChoice[] };

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
    }
  | { field: "thread"; path: string; label: string }
  | { field: "outline"; path: string; label: string }
  | { field: "place" }
  | { field: "pattern" }
  | { field: "plane" }
  | { field: "edges" };

/** All that is known about one kind of row, in one folder. */
export interface RowKind<T extends { kind: string }> {
  kind: T["kind"];
  verb: "leave" | "cut";
  /** What people call it. */
  label: string;
  /** What is known of it before its numbers are. */
  traits?: Traits;
  schema: ZodObject & ZodType<T>;
  /** What a row of this kind holds before its callout is read. */
  blank: () => Partial<T>;
  /** One line to start from, for the button that adds such a row. */
  example: { in: string; mm: string };
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
}
