import type { TopoDS_Shape } from "replicad-opencascadejs";
import { scope, type OC } from "./oc";

interface FileSystem {
  readFile(path: string): Uint8Array;
  writeFile(path: string, data: Uint8Array): void;
  unlink(path: string): void;
}
const fileSystem = (oc: OC): FileSystem => (oc as { FS: FileSystem }).FS;

/** The shape as a STEP file (ISO 10303-21), millimetres. */
export function writeStep(oc: OC, shape: TopoDS_Shape): Uint8Array {
  return scope((own) => {
    const writer = own(new oc.STEPControl_Writer());
    writer.Transfer(shape, oc.STEPControl_StepModelType.STEPControl_AsIs, true, own(new oc.Message_ProgressRange()));
    const path = "/part.step";
    writer.Write(path);
    const bytes = fileSystem(oc).readFile(path).slice();
    fileSystem(oc).unlink(path);
    return bytes;
  });
}

/** Volume of the solids in a STEP file, mm³: what reads back must be what was written. */
export function stepVolume(oc: OC, bytes: Uint8Array): number {
  return scope((own) => {
    const path = "/read.step";
    fileSystem(oc).writeFile(path, bytes);
    const reader = own(new oc.STEPControl_Reader());
    reader.ReadFile(path);
    fileSystem(oc).unlink(path);
    reader.TransferRoots(own(new oc.Message_ProgressRange()));
    const shape = own(reader.OneShape());
    const p = own(new oc.GProp_GProps());
    oc.BRepGProp.VolumeProperties(shape, p, false, false, false);
    return p.Mass();
  });
}
