import type { Box, Frame, Vec2, Vec3 } from "../geometry/vec";
import type { Loop, Outline, Segment } from "../outline";
import type { MeasuredEdge } from "../outline/fromPart";
import type { RoundedEnd } from "../rows";
import type { Problem, Result } from "../base/result";

/** Which row made a face, what the face is to that row, and which copy of its repeat. */
export interface FaceTag {
  row: string;
  role: FaceRole;
  instance: number;
}
export type FaceRole = "top" | "bottom" | "side" | "wall" | "floor" | "cone" | "chamfer" | "round" | "section";

/** A face of a solid as measured, with where it came from. Lengths mm, areas mm². */
export interface FaceInfo {
  tag: FaceTag | null;
  surface: "plane" | "cylinder" | "cone" | "sphere" | "torus" | "other";
  area: number;
  box: Box;
  /** Direction out of the material at a point of the face; for a plane, everywhere. */
  normal: Vec3;
  /** A point of the face. */
  point: Vec3;
  /** Axis of a cylinder. */
  axis?: { origin: Vec3; direction: Vec3 };
  /** Radius of a cylinder or sphere; of the tube of a torus: a round along a round edge. */
  radius?: number;
  /** A point on the middle line of a torus's tube. */
  tube?: Vec3;
  /** A cylinder with the material outside it: a hole, a bore or an inside corner. */
  hollow?: boolean;
  /** Angle a cylinder covers, radians. */
  sweep?: number;
  /** Half of a cone's included angle. */
  halfAngle?: number;
}

/** An edge of a solid with its two faces (indices into the same state's faces; used at once, never stored). */
export interface EdgeInfo {
  curve: "line" | "circle" | "other";
  from: Vec3;
  to: Vec3;
  middle: Vec3;
  length: number;
  centre?: Vec3;
  radius?: number;
  axis?: Vec3;
  faces: [number, number];
  /** How the material turns at the edge: an outside edge is convex. */
  turn: "convex" | "concave" | "smooth";
  /** Angle between the two outward normals, radians. */
  angle: number;
}

/** Triangles and drawn edges of a state, ready for the stage. */
export interface Mesh {
  positions: Float32Array;
  normals: Float32Array;
  triangles: Uint32Array;
  /** Triangle ranges by face: start and count in `triangles`, and the face's index. */
  groups: { start: number; count: number; face: number }[];
  /** Pairs of points, one after the other. */
  lines: Float32Array;
}

/** A tool solid with every depth known, in the coordinates of its frame. */
export type PlacedBody =
  | PlacedPrism
  | { body: "revolved"; profile: { r: number; z: number }[] }
  | { body: "turned"; outlines: Outline[]; sweep: number }
  | { body: "vee"; chains: Segment[][]; halfAngle: number; depth: number }
  /** A round or ring section along lines and tangent arcs. */
  | { body: "tube"; chain: Segment[]; outer: number; inner: number }
  /** Outlines laid round a cylinder that the frame's plane touches at its origin, its axis along y; depths below it. */
  | { body: "wrapped"; outlines: Outline[]; radius: number; from: number; to: number }
  /** Chains of a pointed cutter laid round such a cylinder; it is followed so far over its round. */
  | { body: "wrappedVee"; chains: Segment[][]; radius: number; halfAngle: number; depth: number; over: number }
  /**
   * The groove of a right-hand thread about the frame's normal, between two depths below the frame: its width along the
   * axis at the radius it comes in by and at its root.
   */
  | {
      body: "helix";
      pitch: number;
      outer: { radius: number; width: number };
      inner: { radius: number; width: number };
      from: number;
      to: number;
    }
  /** A solid out of a file that the kernel was given. */
  | { body: "imported"; file: string; content: string; box: Box; mirrored?: true }
  /** A thickened chain that is left only where it fills what lies between the walls round it; `reach` is past them all. */
  | { body: "rib"; chain: Segment[]; thick: number; depth: number | "next"; reach: number };

export interface PlacedPrism {
  body: "prism";
  outline: Outline;
  more?: Outline[];
  from: number;
  to: number;
  /** The box of the part in this plane, where the outline runs off it. */
  edge?: { min: Vec2; max: Vec2 };
  /** What is left goes on only until it has met material. */
  until?: "material";
  /** A slanted plane it ends at: what stands before it, as it looks, is taken away. */
  limit?: { origin: Vec3; normal: Vec3 };
  /** Walls lean inwards by this angle from its start on. */
  draft?: number;
  ends?: RoundedEnd[];
}

/** Whether a prism is its outline carried straight from one level to another, and nothing else. */
export const isPlain = ({ until, limit, draft, ends }: PlacedPrism): boolean => !until && !limit && !draft && !ends;

export type SingleStep =
  /** `instances`: which copies of the row the places are; without it the first, second and so on. */
  | { op: "leave" | "cut"; row: string; frame: Frame; body: PlacedBody; places: Vec2[]; instances?: number[] }
  | {
      op: "edges";
      row: string;
      treatment: "chamfer" | "round";
      size: number;
      angle: number;
      edges: { edge: number; face: number }[];
      /** Edges that it does not fit on are left as they are. */
      fitting?: true;
    }
  /** Hollowed to an even wall; `open` are faces that go altogether. */
  | { op: "shell"; row: string; thick: number; open: number[] }
  /** One face with its holes carried down: what can be settled flat is settled flat. */
  | {
      op: "plate";
      frame: Frame;
      height: number;
      row: string;
      outer: Loop;
      holes: { row: string; instance: number; loop: Loop }[];
    };

/** A step that adds or takes a body. */
export type BodyStep = Extract<SingleStep, { op: "leave" | "cut" }>;

/** Bodies put in one after the other, as one step: the same as each alone, at a fraction of what those cost. */
export interface CopiesStep {
  op: "copies";
  steps: BodyStep[];
}

export type KernelStep = SingleStep | CopiesStep;

export interface StateMeasure {
  volume: number;
  box: Box;
  solids: number;
}

/** A line of a drawing: points in the view's own coordinates. */
export interface DrawnLine {
  points: Vec2[];
  hidden: boolean;
}
export interface View {
  right: Vec3;
  up: Vec3;
  toEye: Vec3;
}

/**
 * The solid library, behind one port. States are held under keys; the key of a state stands for everything that led
 * to it.
 * Calls are synchronous: they run in a worker or on the server, never on the page's thread.
 */
export interface SolidKernel {
  has(key: string): boolean;
  /** Whether the content of a solid's file is there, and giving it. */
  hasFile(content: string): boolean;
  giveFile(content: string, bytes: Uint8Array): void;
  /** The box of a file's solid, in its own X Y Z; why it is none that can be used. */
  fileBox(content: string, file: string): Result<Box>;
  /** Applies a step to a state (or to nothing) and keeps the result under `key`. */
  apply(key: string, from: string | null, step: KernelStep): Result<StateMeasure>;
  measure(key: string): StateMeasure;
  surfaceArea(key: string): number;
  /** The flat faces alone: quick, asked for at every cut. */
  flats(key: string): { normal: Vec3; point: Vec3; face: number }[];
  faces(key: string): FaceInfo[];
  edges(key: string): EdgeInfo[];
  /** How many closed skins a state has: one more than its solids for every room that nothing leads into. */
  skins(key: string): number;
  /** One state taken from another, as they lie, kept under a key of its own; not kept where nothing is left. */
  without(key: string, from: string, taken: string): Result<StateMeasure>;
  /** States laid beside each other as one, each where a frame says: to be drawn, not to be cut. */
  together(key: string, bodies: { key: string; place: Frame }[]): void;
  /** How far a state reaches in a direction. */
  reach(key: string, direction: Vec3): number;
  /** Where the tools of a step run through material: for each place, stretches of depth below its frame. */
  passages(key: string, step: BodyStep): { from: number; to: number }[][];
  /** Where a line runs through material: distances from its start, one stretch after the other. */
  stretches(key: string, start: Vec3, direction: Vec3): { from: number; to: number }[];
  /** Outer wires of the given faces: their edges, and the pieces they are drawn with (in no order). */
  outerWires(key: string, faces: number[]): { edges: number[]; pieces: [Vec3, Vec3][] }[];
  mesh(key: string): Mesh;
  /** Triangles whose neighbours share their points, for files that must be closed. */
  closedMesh(key: string): Mesh;
  /** The part of a state behind a plane, its cut faces tagged `section`. */
  section(key: string, origin: Vec3, normal: Vec3): { mesh: Mesh; area: number; sectionFaces: number[] };
  /** Where a plane runs through the faces of a state, measured: quick, for planes that no face lies in. */
  crossing(key: string, origin: Vec3, normal: Vec3): MeasuredEdge[];
  /** Edges of the faces a plane cuts out of a state, measured. */
  sectionEdges(key: string, origin: Vec3, normal: Vec3): MeasuredEdge[];
  /** Mesh of tool solids alone, for the ghost of rows being typed; null where they have none. */
  ghost(steps: KernelStep[]): Mesh | null;
  drawing(key: string, view: View, hidden: boolean): DrawnLine[];
  /** States as the solids of one STEP file, each under its name; `place`: where its own X Y Z come to lie. */
  step(solids: { key: string; name: string; place?: Frame }[]): Uint8Array;
  /** States that are needed together, of several parts: not forgotten until others are named. */
  pin(keys: string[]): void;
  /** Forgets the states that are not in `keep` when there are many. */
  trim(keep: Set<string>): void;
}

/** Whether a problem says that a treatment is too large for some of its edges: the others may take it. */
export const isTooLargeForEdges = (problem: Problem | null): boolean =>
  problem?.code === "kernel.edgeDoesNotFit" || problem?.code === "kernel.edgesDoNotFit";

/** Whether a problem says that there is too much of something to be tried at all. */
export const isTooMany = (problem: Problem): boolean => problem.code === "kernel.tooManyLapping";
