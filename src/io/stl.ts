import type { Mesh } from "@/core/engine/kernel";

/**
 * Triangles as a binary STL, millimetres. Corners shared by faces are given the same coordinates, so that the shell
 * closes.
 */
export function stlBytes(mesh: Mesh, name: string): Uint8Array {
  const count = mesh.triangles.length / 3;
  const bytes = new Uint8Array(84 + count * 50);
  const view = new DataView(bytes.buffer);
  new TextEncoder().encodeInto(`sgorbia ${name.replace(/[^\x20-\x7e]/g, " ")}`.slice(0, 79), bytes);
  view.setUint32(80, count, true);
  // Grid of 1/65536 mm: far under any tolerance, coarse enough that equal corners become equal floats.
  const snap = (v: number) => Math.round(v * 65536) / 65536;
  const p = (i: number) => [
    snap(mesh.positions[3 * i]),
    snap(mesh.positions[3 * i + 1]),
    snap(mesh.positions[3 * i + 2]),
  ];
  for (let t = 0; t < count; t++) {
    const [a, b, c] = [p(mesh.triangles[3 * t]), p(mesh.triangles[3 * t + 1]), p(mesh.triangles[3 * t + 2])];
    const u = [b[0] - a[0], b[1] - a[1], b[2] - a[2]],
      v = [c[0] - a[0], c[1] - a[1], c[2] - a[2]];
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    const l = Math.hypot(...n) || 1;
    [...n.map((x) => x / l), ...a, ...b, ...c].forEach((x, i) => view.setFloat32(84 + t * 50 + 4 * i, x, true));
  }
  return bytes;
}
