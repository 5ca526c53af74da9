import type { TopoDS_Shape } from "replicad-opencascadejs";
import type { Mesh } from "@/core/engine/kernel";
import { scope, type OC } from "./oc";

/** Triangles of one face or of a whole shape. */
export interface FaceMesh {
  positions: Float32Array;
  normals: Float32Array;
  triangles: Uint32Array;
}

/** Largest turn between two chords, radians: it rules the small rounds; the deflection rules the large ones. */
const TURN = 0.22;

/** Triangulates a shape and takes the triangles out of the library. */
export function extractMesh(oc: OC, shape: TopoDS_Shape, deflection: number): FaceMesh {
  return scope((own) => {
    const data = own(oc.ReplicadMeshExtractor.extract(shape, deflection, TURN, false));
    // Asked for anew each time: the memory is another buffer after it has grown.
    const memory = (oc as { wasmMemory: WebAssembly.Memory }).wasmMemory.buffer;
    const mesh = {
      positions: new Float32Array(memory, data.getVerticesPtr(), data.getVerticesSize()).slice(),
      normals: new Float32Array(memory, data.getNormalsPtr(), data.getNormalsSize()).slice(),
      triangles: new Uint32Array(memory, data.getTrianglesPtr(), data.getTrianglesSize()).slice(),
    };
    // The library keeps triangles on shapes that are long deleted (measured: 30 kB a cylinder); they are taken off
    // at once.
    oc.BRepTools.Clean(shape, true);
    return mesh;
  });
}

/** One picture out of many pieces; `groups` tells which triangles came from which. */
export function joinMeshes(pieces: FaceMesh[], lines: Float32Array): Mesh {
  const sum = (k: "positions" | "triangles") => pieces.reduce((n, m) => n + m[k].length, 0);
  const out: Mesh = {
    positions: new Float32Array(sum("positions")),
    normals: new Float32Array(sum("positions")),
    triangles: new Uint32Array(sum("triangles")),
    groups: [],
    lines,
  };
  let p = 0,
    t = 0;
  pieces.forEach((m, face) => {
    out.positions.set(m.positions, p);
    out.normals.set(m.normals, p);
    for (let i = 0; i < m.triangles.length; i++) out.triangles[t + i] = m.triangles[i] + p / 3;
    out.groups.push({ start: t, count: m.triangles.length, face });
    p += m.positions.length;
    t += m.triangles.length;
  });
  return out;
}

export const emptyMesh = (): Mesh => joinMeshes([], new Float32Array());
