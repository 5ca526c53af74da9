import type { TopoDS_Shape } from "replicad-opencascadejs";
import { fail, ok, type Result } from "@/core/base/result";
import type { BodyStep, PlacedBody } from "@/core/engine/kernel";
import type { Box } from "@/core/geometry/vec";
import { copyAt, type Tagged } from "./bodies";
import { scope, type OC } from "./oc";
import { problems } from "./problems";
import { laidAt, readStep } from "./stepFile";
import { boxOfShape, countSolids, facesOf, isClosed } from "./topology";

type Imported = Extract<PlacedBody, { body: "imported" }>;

/** Files kept, the newest: more than one job may name (50), so that a job's own are always all there. */
const MOST_FILES = 60;
/** More faces than this are no part that is cut further row by row. */
const MOST_FACES = 3000;

/** The files of solids that this kernel was given, and the solids read from them. */
export class StepSolids {
  private readonly files = new Map<string, Uint8Array>();
  private readonly read = new Map<string, Result<TopoDS_Shape>>();
  constructor(private readonly oc: OC) {}

  has(content: string): boolean {
    return this.files.has(content);
  }
  give(content: string, bytes: Uint8Array): void {
    this.files.set(content, bytes);
    for (const oldest of this.files.keys()) {
      if (this.files.size <= MOST_FILES) break;
      this.forget(oldest);
    }
  }
  private forget(content: string): void {
    const read = this.read.get(content);
    if (read?.ok) read.value.delete();
    this.read.delete(content);
    this.files.delete(content);
  }

  /** The copies of a step whose body is a file's solid, laid on its frame. The caller frees them. */
  copies(step: BodyStep, body: Imported): Result<Tagged[]> {
    const solid = this.solidOf(body);
    if (!solid.ok) return solid;
    const own = body.mirrored ? mirroredInX(this.oc, solid.value) : null;
    const shape = laidAt(this.oc, own ?? solid.value, step.frame);
    own?.delete();
    const faces = facesOf(this.oc, shape);
    faces.forEach((f) => f.delete());
    const base = { shape, roles: faces.map(() => "wall" as const) };
    const copies = step.places.map((_, i) => copyAt(this.oc, step, base, i));
    shape.delete();
    return ok(copies);
  }

  box(content: string, file: string): Result<Box> {
    const solid = this.solidOf({ content, file });
    return solid.ok ? ok(boxOfShape(this.oc, solid.value)) : solid;
  }

  private solidOf({ content, file }: Pick<Imported, "content" | "file">): Result<TopoDS_Shape> {
    const known = this.read.get(content);
    if (known) return known;
    const bytes = this.files.get(content);
    if (!bytes) return fail(problems.fileNotHere(file), { path: "file" });
    const refused = beforeReading(bytes, file);
    const made = refused ? fail(refused, { path: "file" }) : this.sound(readStep(this.oc, bytes), file);
    this.read.set(content, made);
    return made;
  }

  private sound(shape: TopoDS_Shape | null, file: string): Result<TopoDS_Shape> {
    if (!shape || countSolids(this.oc, shape) === 0) {
      shape?.delete();
      return fail(problems.noSolidInFile(file), { path: "file" });
    }
    const faces = facesOf(this.oc, shape);
    faces.forEach((f) => f.delete());
    const wrong =
      faces.length > MOST_FACES
        ? problems.tooManyFaces(faces.length, MOST_FACES)
        : isClosed(this.oc, shape)
          ? null
          : problems.solidNotClosed(file);
    if (!wrong) return ok(shape);
    shape.delete();
    return fail(wrong, { path: "file" });
  }
}

/**
 * What a file's own text says against it, looked at before the library reads it: that takes minutes over thousands of
 * faces, and breaks over numbers that are none and over files without a solid.
 */
function beforeReading(bytes: Uint8Array, file: string) {
  const text = new TextDecoder("latin1").decode(bytes);
  const count = (entity: RegExp): number => text.match(entity)?.length ?? 0;
  const faces = count(/=\s*(?:ADVANCED_FACE|FACE_SURFACE)\s*\(/gi);
  if (faces > MOST_FACES) return problems.tooManyFaces(faces, MOST_FACES);
  if (!count(/(?:MANIFOLD_SOLID_BREP|BREP_WITH_VOIDS|FACETED_BREP)\s*\(/gi)) return problems.noSolidInFile(file);
  return /[(,]\s*[-+]?(?:NAN|INF(?:INITY)?|1\.#\w+)\b/i.test(text) ? problems.noNumbersInFile(file) : null;
}

/** A shape in a mirror that stands across its own X. The caller frees it. */
function mirroredInX(oc: OC, shape: TopoDS_Shape): TopoDS_Shape {
  return scope((own) => {
    const t = own(new oc.gp_Trsf());
    const [zero, x] = [own(new oc.gp_Pnt(0, 0, 0)), own(new oc.gp_Dir(1, 0, 0))];
    t.SetMirror(own(new oc.gp_Ax2(zero, x)));
    return own(new oc.BRepBuilderAPI_Transform(shape, t, true, false)).Shape();
  });
}
