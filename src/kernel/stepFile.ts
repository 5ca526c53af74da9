import type { TopoDS_Shape } from "replicad-opencascadejs";
import type { Frame } from "@/core/geometry/vec";
import { scope, type OC } from "./oc";

interface FileSystem {
  readFile(path: string): Uint8Array;
  writeFile(path: string, data: Uint8Array): void;
  unlink(path: string): void;
}
const fileSystem = (oc: OC): FileSystem => (oc as { FS: FileSystem }).FS;

/** Shapes as the solids of a STEP file (ISO 10303-21), millimetres, each a product with its name. */
export function writeStep(oc: OC, solids: { shape: TopoDS_Shape; name: string }[]): Uint8Array {
  return scope((own) => {
    const writer = own(new oc.STEPControl_Writer());
    const asIs = oc.STEPControl_StepModelType.STEPControl_AsIs;
    for (const { shape } of solids) writer.Transfer(shape, asIs, true, own(new oc.Message_ProgressRange()));
    const path = "/part.step";
    writer.Write(path);
    const bytes = fileSystem(oc).readFile(path).slice();
    fileSystem(oc).unlink(path);
    return named(
      bytes,
      solids.map((s) => s.name),
    );
  });
}

/** The library calls its products by numbers of its own: each gets the name of its solid, in their order. */
function named(bytes: Uint8Array, names: string[]): Uint8Array {
  let at = 0;
  const text = new TextDecoder().decode(bytes).replace(/=\s*PRODUCT\('[^']*',\s*'[^']*'/g, (found) => {
    const name = names[at++];
    return name === undefined ? found : `= PRODUCT('${stepText(name)}','${stepText(name)}'`;
  });
  return new TextEncoder().encode(text);
}
/** Text between apostrophes: those inside are doubled, what is not plain is left out. */
const stepText = (name: string): string =>
  name
    .replace(/[^ -~]/g, "?")
    .replace(/\\/g, "/")
    .replace(/'/g, "''");

/** The solids of a STEP file as one shape, millimetres; null where it is none that can be read. The caller frees it. */
export function readStep(oc: OC, bytes: Uint8Array): TopoDS_Shape | null {
  return scope((own) => {
    const path = "/read.step";
    fileSystem(oc).writeFile(path, bytes);
    const reader = own(new oc.STEPControl_Reader());
    try {
      reader.ReadFile(path);
      if (reader.TransferRoots(own(new oc.Message_ProgressRange())) === 0) return null;
      return reader.OneShape();
    } finally {
      fileSystem(oc).unlink(path);
    }
  });
}

/** Volume of the solids in a STEP file, mm³: what reads back must be what was written. */
export function stepVolume(oc: OC, bytes: Uint8Array): number {
  return scope((own) => {
    const shape = readStep(oc, bytes);
    if (!shape) return 0;
    const p = own(new oc.GProp_GProps());
    oc.BRepGProp.VolumeProperties(own(shape), p, false, false, false);
    return p.Mass();
  });
}

/** A shape with its own X Y Z laid where a frame says. The caller frees it. */
export function laidAt(oc: OC, shape: TopoDS_Shape, { origin: o, x, y, normal: n }: Frame): TopoDS_Shape {
  return scope((own) => {
    const t = own(new oc.gp_Trsf());
    t.SetValues(x.x, y.x, n.x, o.x, x.y, y.y, n.y, o.y, x.z, y.z, n.z, o.z);
    return shape.Moved(own(new oc.TopLoc_Location(t)), false);
  });
}
