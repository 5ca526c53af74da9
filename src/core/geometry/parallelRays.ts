import { cross, dot, unit, v3, type Vec2, type Vec3 } from "./vec";

/** A triangle seen along the rays: its corners across them, and how far along. */
interface Seen {
  points: [Vec2, Vec2, Vec2];
  along: [number, number, number];
}

/** Cells a side of the grid that triangles are sorted into, across the rays. */
const CELLS = 64;

/** Rays of one direction against triangles: these are sorted once into a grid across the rays. */
export class ParallelRays {
  private readonly x: Vec3;
  private readonly y: Vec3;
  private readonly cells: Seen[][] = Array.from({ length: CELLS * CELLS }, () => []);
  private readonly min: Vec2;
  private readonly step: Vec2;

  /**
   * @param positions corners, three numbers each
   * @param triangles three corners each
   */
  constructor(
    positions: Float32Array,
    triangles: Uint32Array,
    private readonly direction: Vec3,
  ) {
    const side = Math.abs(direction.z) < 0.9 ? v3(0, 0, 1) : v3(1, 0, 0);
    this.x = unit(cross(side, direction));
    this.y = cross(direction, this.x);
    const points = Array.from({ length: positions.length / 3 }, (_, i) => {
      const p = v3(positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]);
      return { x: dot(p, this.x), y: dot(p, this.y), z: dot(p, direction) };
    });
    const least = (k: "x" | "y") => points.reduce((m, p) => Math.min(m, p[k]), Infinity);
    const most = (k: "x" | "y") => points.reduce((m, p) => Math.max(m, p[k]), -Infinity);
    this.min = { x: least("x"), y: least("y") };
    this.step = { x: (most("x") - this.min.x) / CELLS || 1, y: (most("y") - this.min.y) / CELLS || 1 };
    for (let t = 0; t + 2 < triangles.length; t += 3) {
      const corners = [points[triangles[t]], points[triangles[t + 1]], points[triangles[t + 2]]] as const;
      this.sort({ points: [corners[0], corners[1], corners[2]], along: [corners[0].z, corners[1].z, corners[2].z] });
    }
  }

  private cell(k: "x" | "y", at: number): number {
    return Math.max(0, Math.min(CELLS - 1, Math.floor((at - this.min[k]) / this.step[k])));
  }

  private sort(seen: Seen): void {
    const [xs, ys] = [seen.points.map((p) => p.x), seen.points.map((p) => p.y)];
    const [x0, x1] = [this.cell("x", Math.min(...xs)), this.cell("x", Math.max(...xs))];
    const [y0, y1] = [this.cell("y", Math.min(...ys)), this.cell("y", Math.max(...ys))];
    for (let i = x0; i <= x1; i++) for (let j = y0; j <= y1; j++) this.cells[i * CELLS + j].push(seen);
  }

  /** Whether a ray from a place meets a triangle farther on than `past`. */
  meets(from: Vec3, past: number): boolean {
    const p = { x: dot(from, this.x), y: dot(from, this.y) };
    const start = dot(from, this.direction);
    const here = this.cells[this.cell("x", p.x) * CELLS + this.cell("y", p.y)];
    return here.some((t) => {
      const at = heightAt(t, p);
      return at !== null && at > start + past;
    });
  }
}

/** How far along a triangle lies where a ray passes it; null where it passes beside it. */
function heightAt({ points: [a, b, c], along }: Seen, p: Vec2): number | null {
  const whole = (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
  // Seen edge on it is no obstacle: its neighbours are.
  if (Math.abs(whole) < 1e-12) return null;
  const u = ((p.x - a.x) * (c.y - a.y) - (p.y - a.y) * (c.x - a.x)) / whole;
  const v = ((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) / whole;
  if (u < 0 || v < 0 || u + v > 1) return null;
  return along[0] + u * (along[1] - along[0]) + v * (along[2] - along[0]);
}
