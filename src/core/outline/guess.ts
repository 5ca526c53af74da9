import { COINCIDENT, CONTACT } from "../geometry/tolerance";
import { v2, type Vec2 } from "../geometry/vec";

/** A coordinate that is known or not. */
export interface Maybe2 {
  x: number | null;
  y: number | null;
}
/** Where a step starts from, and what is known of it before anything is solved. */
export interface StepGuess {
  from: Vec2;
  /** The way the walk runs so far, radians. */
  heading: number;
  first: boolean;
  tangent: boolean;
  /** Coordinates of the end as far as they are typed, and where it is looked for. */
  known: Maybe2;
  near: Maybe2 | null;
  /** Extent of the typed numbers, mm. */
  size: number;
}

const isKnown = ({ x, y }: Maybe2): boolean => x !== null && y !== null;

/**
 * Where a line ends, as a first guess. One left open goes the way walks usually go, round to the left; one coordinate
 * alone is reached straight, or along it to the left.
 */
export function lineEnd(g: StepGuess, angle: number | null, length: number | null): Vec2 {
  const { from: p, heading, known, near, size } = g;
  const reach = length ?? size / 4;
  const turn = angle ?? heading;
  const open = angle === null && !g.tangent;
  const nothing = known.x === null && known.y === null && length === null;
  const way = open && nothing && !g.first ? turn + Math.PI / 2 : turn;
  const end = v2(known.x ?? near?.x ?? p.x + reach * Math.cos(way), known.y ?? near?.y ?? p.y + reach * Math.sin(way));
  if (isKnown(known)) return end;
  const freeX = known.y !== null && near?.x == null;
  const freeY = known.x !== null && near?.y == null;
  if (open && !g.first) {
    if (freeX) end.x = Math.abs(known.y! - p.y) > COINCIDENT ? p.x : p.x - reach * leftOf(heading).x;
    if (freeY) end.y = Math.abs(known.x! - p.x) > COINCIDENT ? p.y : p.y + reach * leftOf(heading).y;
    return end;
  }
  if (freeX && Math.abs(Math.sin(turn)) > CONTACT) end.x = p.x + (known.y! - p.y) / Math.tan(turn);
  if (freeY && Math.abs(Math.cos(turn)) > CONTACT) end.y = p.y + (known.x! - p.x) * Math.tan(turn);
  return end;
}

/** Which way along an axis lies to the left of a heading; straight along it, the way on. */
function leftOf(heading: number): Vec2 {
  const [c, s] = [Math.cos(heading), Math.sin(heading)];
  return v2(Math.abs(s) > CONTACT ? Math.sign(s) : -Math.sign(c), Math.abs(c) > CONTACT ? Math.sign(c) : Math.sign(s));
}

/** What is known of an arc. */
export interface ArcGuess {
  centre: Maybe2 | null;
  radius: number | null;
  sweep: number | null;
  side: 1 | -1;
  long: boolean;
  /** Nothing says where it ends. */
  endOpen: boolean;
}

/** Where an arc ends, as a first guess: round its centre where that is known, else along a chord. */
export function arcEnd(g: StepGuess, a: ArcGuess): Vec2 {
  const { from: p, known, near } = g;
  if (a.centre?.x != null && a.centre.y !== null && (a.sweep !== null || a.endOpen)) {
    const { x, y } = a.centre as Vec2;
    const angle = Math.atan2(p.y - y, p.x - x) + a.side * Math.abs(a.sweep ?? 0.9 * Math.PI),
      r = a.radius ?? Math.hypot(p.x - x, p.y - y);
    return v2(x + r * Math.cos(angle), y + r * Math.sin(angle));
  }
  const r = a.radius ?? g.size / 8,
    sweep = a.sweep ?? Math.PI / 2,
    way = g.heading + (a.side * sweep) / 2,
    chord = 2 * r * Math.abs(Math.sin(sweep / 2));
  return v2(known.x ?? near?.x ?? p.x + chord * Math.cos(way), known.y ?? near?.y ?? p.y + chord * Math.sin(way));
}

/** Where an arc's centre is: given, square to the way in for a tangent arc, else left (or right) of the chord. */
export function arcCentre(g: StepGuess, a: ArcGuess, end: Vec2): Vec2 {
  const { from: p, heading, size } = g;
  if (a.centre && (a.centre.x !== null || a.centre.y !== null)) return v2(a.centre.x ?? p.x, a.centre.y ?? p.y);
  const chord = Math.hypot(end.x - p.x, end.y - p.y) || COINCIDENT;
  if (g.tangent && !g.first) {
    const nx = -Math.sin(heading) * a.side,
      ny = Math.cos(heading) * a.side;
    const along = (end.x - p.x) * nx + (end.y - p.y) * ny;
    const r = a.radius ?? (along > COINCIDENT ? (chord * chord) / (2 * along) : size / 8);
    return v2(p.x + r * nx, p.y + r * ny);
  }
  const r = Math.max(a.radius ?? chord * 0.75, chord / 2),
    over = a.long || (a.sweep !== null && Math.abs(a.sweep) > Math.PI),
    h = Math.sqrt(Math.max(0, r * r - (chord * chord) / 4)) * (over ? -1 : 1);
  return v2(
    (p.x + end.x) / 2 - (a.side * h * (end.y - p.y)) / chord,
    (p.y + end.y) / 2 + (a.side * h * (end.x - p.x)) / chord,
  );
}
