import type { TopoDS_Face, TopoDS_Shape } from 'replicad-opencascadejs';
import type { Mesh } from '@/core/engine/kernel';
import type { OC } from './oc';
import { scope } from './oc';
import { describeEdge, edgesOf, freeEdges, samples } from './topology';

/** Triangles of a shape by face, and the edges a draughtsman would draw: smooth joins and seams are left out. */
export function meshOf(oc: OC, shape: TopoDS_Shape, faces: TopoDS_Face[], deflection: number): Mesh {
  return scope((own) => {
    const data = own(oc.ReplicadMeshExtractor.extract(shape, deflection, 0.13, false));
    // Asked for anew each time: the memory is another buffer after it has grown.
    const memory = (oc as unknown as { wasmMemory: WebAssembly.Memory }).wasmMemory.buffer;
    const f32 = (ptr: number, size: number) => new Float32Array(memory, ptr, size).slice();
    const positions = f32(data.getVerticesPtr(), data.getVerticesSize());
    const normals = f32(data.getNormalsPtr(), data.getNormalsSize());
    const triangles = new Uint32Array(memory, data.getTrianglesPtr(), data.getTrianglesSize()).slice();
    const raw = new Int32Array(memory, data.getFaceGroupsPtr(), data.getFaceGroupsSize()).slice();
    const groups: Mesh['groups'] = [];
    // Groups come in the order faces are explored; each is start, count and the face's hash.
    for (let i = 0; i < raw.length; i += 3) groups.push({ start: raw[i], count: raw[i + 1], face: i / 3 });
    return { positions, normals, triangles, groups, lines: drawnEdges(oc, faces) };
  });
}

function drawnEdges(oc: OC, faces: TopoDS_Face[]): Float32Array {
  const out: number[] = [];
  const edges = edgesOf(oc, faces);
  for (const e of edges) {
    const info = describeEdge(oc, e, faces);
    if (!info || info.angle < 0.02) continue;
    const points = samples(oc, e.edge);
    for (let i = 0; i + 1 < points.length; i++) out.push(points[i].x, points[i].y, points[i].z, points[i + 1].x, points[i + 1].y, points[i + 1].z);
  }
  freeEdges(edges);
  return new Float32Array(out);
}

