import { boxOf, type Box, type Vec2 } from "@/core/geometry/vec";

/** The stretch of the plane an open outline is looked at in. */
export interface CloseUp {
  id: string;
  min: Vec2;
  max: Vec2;
}
interface Flat {
  min: Vec2;
  max: Vec2;
}

const grown = (b: Flat): Flat => {
  const by = 0.4 * Math.max(b.max.x - b.min.x, b.max.y - b.min.y, 1);
  return { min: { x: b.min.x - by, y: b.min.y - by }, max: { x: b.max.x + by, y: b.max.y + by } };
};
const holds = (a: Flat, b: Flat) =>
  b.min.x >= a.min.x && b.min.y >= a.min.y && b.max.x <= a.max.x && b.max.y <= a.max.y;

const sizeOf = ({ min, max }: Flat): number => Math.max(max.x - min.x, max.y - min.y);
const TOO_FAR = 10;

/**
 * The stretch to look at: what it was while the outline stays in it, so that the picture does not jump at every
 * keystroke; else wider.
 */
export function framed(before: CloseUp | null, id: string, box: Flat): CloseUp {
  if (before?.id !== id) return { id, ...grown(box) };
  // What has become ten times smaller (a slip that is mended) is looked at anew.
  if (sizeOf(before) > TOO_FAR * sizeOf(grown(box))) return { id, ...grown(box) };
  if (holds(before, box)) return before;
  const both = {
    min: { x: Math.min(before.min.x, box.min.x), y: Math.min(before.min.y, box.min.y) },
    max: { x: Math.max(before.max.x, box.max.x), y: Math.max(before.max.y, box.max.y) },
  };
  return { id, ...grown(both) };
}

/** A stretch of the plane as a box in space; with the piece, unless it is small beside that. */
export function withPiece({ min, max }: CloseUp, piece: Box | null): Box {
  const alone =
    piece && max.x - min.x < 0.5 * (piece.max.x - piece.min.x) && max.y - min.y < 0.5 * (piece.max.y - piece.min.y);
  return boxOf([
    { ...min, z: piece?.min.z ?? -1 },
    { ...max, z: piece?.max.z ?? 1 },
    ...(piece && !alone ? [piece.min, piece.max] : []),
  ]);
}
