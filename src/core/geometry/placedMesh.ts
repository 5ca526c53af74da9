import { add, scale, v3, type Box, type Frame, type Vec3 } from "./vec";

interface Points {
  positions: Float32Array;
  normals: Float32Array;
  lines: Float32Array;
}

/** A picture with its own X Y Z laid where a frame says, and shifted besides. */
export function placedMesh<M extends Points>(mesh: M, { origin, x, y, normal }: Frame, shift: Vec3 = v3(0, 0, 0)): M {
  const at = add(origin, shift);
  const laid = (list: Float32Array, from: Vec3): Float32Array => {
    const out = new Float32Array(list.length);
    for (let i = 0; i < list.length; i += 3) {
      const p = add(from, add(add(scale(x, list[i]), scale(y, list[i + 1])), scale(normal, list[i + 2])));
      [out[i], out[i + 1], out[i + 2]] = [p.x, p.y, p.z];
    }
    return out;
  };
  return {
    ...mesh,
    positions: laid(mesh.positions, at),
    lines: laid(mesh.lines, at),
    normals: laid(mesh.normals, v3(0, 0, 0)),
  };
}

/** The box round pictures; null where there is nothing. */
export function boxOfMeshes(meshes: Pick<Points, "positions">[]): Box | null {
  let [min, max] = [v3(Infinity, Infinity, Infinity), v3(-Infinity, -Infinity, -Infinity)];
  for (const { positions: p } of meshes)
    for (let i = 0; i < p.length; i += 3) {
      min = v3(Math.min(min.x, p[i]), Math.min(min.y, p[i + 1]), Math.min(min.z, p[i + 2]));
      max = v3(Math.max(max.x, p[i]), Math.max(max.y, p[i + 1]), Math.max(max.z, p[i + 2]));
    }
  return min.x === Infinity ? null : { min, max };
}
