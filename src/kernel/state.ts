import type { TopoDS_Face, TopoDS_Shape } from "replicad-opencascadejs";
import type { Vec3 } from "@/core/geometry/vec";
import type { EdgeInfo, FaceInfo, FaceTag, Mesh, StateMeasure } from "@/core/engine/kernel";
import type { MeasuredEdge } from "@/core/outline/fromPart";
import type { Tagged } from "./bodies";
import type { Host } from "./insertion/insert";
import { scope, type OC } from "./oc";
import { facesOf } from "./topology";

/** Face handles that several states share: freed when the last of them goes. */
export class FaceHandles {
  private uses = new Map<TopoDS_Face, number>();
  hold(faces: TopoDS_Face[]): void {
    for (const f of faces) this.uses.set(f, (this.uses.get(f) ?? 0) + 1);
  }
  release(faces: TopoDS_Face[]): void {
    for (const f of faces) {
      const left = (this.uses.get(f) ?? 1) - 1;
      if (left > 0) this.uses.set(f, left);
      else {
        this.uses.delete(f);
        f.delete();
      }
    }
  }
}

/** The solid that a closed skin of faces encloses. The caller frees it. */
function solidOfFaces(oc: OC, faces: TopoDS_Face[]): TopoDS_Shape {
  return scope((own) => {
    const builder = own(new oc.TopoDS_Builder());
    const shell = own(new oc.TopoDS_Shell());
    builder.MakeShell(shell);
    for (const f of faces) builder.Add(shell, f);
    const solid = new oc.TopoDS_Solid();
    builder.MakeSolid(solid);
    builder.Add(solid, shell);
    return solid;
  });
}

/** A solid as it stands after a row, and what has been read of it so far. */
export class State implements Tagged {
  flats?: { normal: Vec3; point: Vec3; face: number }[];
  faceInfo?: FaceInfo[];
  edgeInfo?: EdgeInfo[];
  mesh?: Mesh;
  /** How far it reaches along directions, and what planes have in common with it: asked again and again. */
  reaches?: Map<string, number>;
  crossings?: Map<string, MeasuredEdge[]>;
  /** What a cut put in by topology has to know; null where the state is more than one shell. */
  host?: Host | null;

  private constructor(
    private oc: OC,
    private handles: FaceHandles,
    readonly tags: (FaceTag | null)[],
    readonly measure: StateMeasure & { precision?: number },
    private solid: TopoDS_Shape | null,
    private skin: TopoDS_Face[] | null,
  ) {
    if (skin) handles.hold(skin);
  }
  static ofShape(oc: OC, handles: FaceHandles, made: Tagged, measure: StateMeasure & { precision?: number }): State {
    return new State(oc, handles, made.tags, measure, made.shape, null);
  }
  /** A state known by its faces: its solid is put together when somebody asks for it. */
  static ofFaces(
    oc: OC,
    handles: FaceHandles,
    faces: TopoDS_Face[],
    tags: (FaceTag | null)[],
    measure: StateMeasure & { precision?: number },
  ): State {
    return new State(oc, handles, tags, measure, null, faces);
  }
  get shape(): TopoDS_Shape {
    return (this.solid ??= solidOfFaces(this.oc, this.skin as TopoDS_Face[]));
  }
  get faces(): TopoDS_Face[] {
    if (!this.skin) {
      this.skin = facesOf(this.oc, this.shape);
      this.handles.hold(this.skin);
    }
    return this.skin;
  }
  free(): void {
    if (this.skin) this.handles.release(this.skin);
    this.solid?.delete();
  }
}
