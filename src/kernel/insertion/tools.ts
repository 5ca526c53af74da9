import type { TopoDS_Face } from "replicad-opencascadejs";
import { keyOf } from "@/core/base/key";
import type { BodyStep, FaceTag } from "@/core/engine/kernel";
import { add, scale, v2 } from "@/core/geometry/vec";
import { copyAt, wayTo, type BaseSolid, type Tagged } from "../bodies";
import { boolean } from "../booleans";
import type { FaceCache, Flat } from "../faceCache";
import { scope, type OC } from "../oc";
import { solidOf } from "../solids";
import { describeFlat, facesOf, volumeOf } from "../topology";

type Own = <D extends { delete(): void }>(d: D) => D;

/** A tool solid with all that its copies share: where its flats lie and what it takes. */
interface Tool extends BaseSolid {
  flats: (Flat | null)[];
  volume: number;
}

/** One face of a copy, as the part will have it: turned inside out. */
export interface ToolFace {
  /** The face as the tool has it; freed with the scope it was asked in. */
  face: TopoDS_Face;
  flat: Flat | null;
  tag: FaceTag | null;
}

/** Tools kept: the rows after a changed one put in what they put in before. */
const MOST_KEPT = 120;

/**
 * Tool solids of cuts that are put in by topology, one for all the rows and places that use the same one. Only a cut
 * that meets nothing is put in, so no part ever holds two copies in one place.
 */
export class InsertTools {
  private kept = new Map<string, Tool>();
  private joinedKept = new Map<string, Tagged>();
  private asked: { body: BodyStep["body"]; frame: BodyStep["frame"]; tool: Tool } | null = null;
  constructor(
    private oc: OC,
    private faces: FaceCache,
  ) {}

  /** What one copy of a step's tool takes. */
  volumeOf(step: BodyStep): number {
    return this.toolOf(step).volume;
  }

  /** The faces of one copy. What is known of the tool's flats is known of the copy's. */
  facesAt(step: BodyStep, instance: number, own: Own): ToolFace[] {
    const tool = this.toolOf(step);
    const copy = copyAt(this.oc, step, tool, instance);
    own(copy.shape);
    const way = wayTo(step, step.places[instance]);
    return facesOf(this.oc, copy.shape).map((face, k) => {
      const flat = tool.flats[k];
      return {
        face: own(face),
        flat: flat && { normal: flat.normal, point: add(flat.point, way) },
        tag: copy.tags[k],
      };
    });
  }

  /**
   * Copies of a step's tool joined into one; null where they do not join. Groups whose copies lie alike are one solid
   * moved. The caller frees it.
   */
  joinedAt(step: BodyStep, group: number[]): Tagged | null {
    const [first] = group;
    const from = step.places[first];
    const ways = group.map((i) => v2(step.places[i].x - from.x, step.places[i].y - from.y));
    const rounded = ways.map((w) => [Math.round(w.x * 1e9), Math.round(w.y * 1e9)]);
    const key = keyOf(null, { body: step.body, frame: step.frame, ways: rounded });
    let joined = this.joinedKept.get(key);
    if (!joined) {
      const made = this.join({ ...step, row: "", places: ways, instances: undefined });
      if (!made) return null;
      this.joinedKept.set(key, (joined = made));
    }
    const shape = copyAt(this.oc, step, { shape: joined.shape, roles: [] }, first).shape;
    const tags = joined.tags.map((t) => {
      const place = t && group[t.instance];
      return t && place !== null ? { ...t, row: step.row, instance: step.instances?.[place] ?? place } : null;
    });
    return { shape, tags };
  }

  private join(step: BodyStep): Tagged | null {
    const tool = this.toolOf(step);
    const [head, ...rest] = step.places.map((_, i) => copyAt(this.oc, step, tool, i));
    if (!rest.length) return head;
    const made = boolean(this.oc, "join", head, rest);
    for (const t of [head, ...rest]) t.shape.delete();
    return made.ok ? made.value : null;
  }

  /** A tool's face turned inside out, as a wall of the part. The caller frees it. */
  wallOf({ face, flat }: ToolFace): TopoDS_Face {
    const wall = scope((own) => this.oc.TopoDS.Face(own(face.Reversed())));
    this.faces.know(wall, flat && { normal: scale(flat.normal, -1), point: flat.point });
    return wall;
  }

  private toolOf({ body, frame }: BodyStep): Tool {
    // One cut asks for its tool several times: its key is made once.
    if (this.asked?.body !== body || this.asked.frame !== frame)
      this.asked = { body, frame, tool: this.toolFor(body, frame) };
    return this.asked.tool;
  }

  private toolFor(body: BodyStep["body"], frame: BodyStep["frame"]): Tool {
    const key = keyOf(null, { body, frame });
    const known = this.kept.get(key);
    if (known) {
      this.kept.delete(key);
      this.kept.set(key, known);
      return known;
    }
    if (body.body !== "prism" && body.body !== "revolved") throw new Error(`no tool is put in for a ${body.body}`);
    const base = solidOf(this.oc, frame, body, false);
    const flats = scope((own) => facesOf(this.oc, base.shape).map((f) => describeFlat(this.oc, own(f))));
    const made = { ...base, flats, volume: volumeOf(this.oc, base.shape) };
    this.kept.set(key, made);
    return made;
  }

  /** Forgets the oldest beyond what is kept. Not called while tools are in use. */
  trim(): void {
    this.asked = null;
    for (const map of [this.kept, this.joinedKept])
      for (const [key, tool] of map) {
        if (map.size <= MOST_KEPT) break;
        tool.shape.delete();
        map.delete(key);
      }
  }
}
