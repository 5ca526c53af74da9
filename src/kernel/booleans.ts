import { problems } from "./problems";
import type { TopoDS_Shape } from "replicad-opencascadejs";
import { fail, ok, type Result } from "@/core/base/result";
import type { FaceTag } from "@/core/engine/kernel";
import type { Tagged } from "./bodies";
import { scope, type OC } from "./oc";
import { facesOf, isClosed, ShapeMap } from "./topology";
import { CONTACT } from "@/core/geometry/tolerance";

/** What the library remembers of an operation: what became of each face. */
interface History {
  Modified(s: TopoDS_Shape): { IsEmpty(): boolean; First(): TopoDS_Shape; RemoveFirst(): void; delete(): void };
  IsDeleted(s: TopoDS_Shape): boolean;
}

/** Carries the tags through an operation by its own record of what became of each face. */
export function follow(
  oc: OC,
  shape: TopoDS_Shape,
  history: History,
  sources: Tagged[],
  fresh: FaceTag | null,
): Tagged {
  return scope((own) => {
    const map = new ShapeMap<FaceTag | null>(oc);
    for (const source of sources) {
      facesOf(oc, source.shape).forEach((f, i) => {
        own(f);
        if (history.IsDeleted(f)) return;
        const modified = own(history.Modified(f));
        if (modified.IsEmpty()) map.set(f, source.tags[i]);
        for (; !modified.IsEmpty(); modified.RemoveFirst()) map.set(own(modified.First()), source.tags[i]);
      });
    }
    const result = facesOf(oc, shape).map((f) => own(f));
    return { shape, tags: result.map((f) => map.get(f) ?? fresh) };
  });
}

/** Joins shapes or takes tools from one. What comes of it must be closed. The caller frees the result. */
export function boolean(oc: OC, op: "leave" | "cut" | "join", base: Tagged, tools: Tagged[]): Result<Tagged> {
  return scope((own) => {
    const b = own(op === "cut" ? new oc.BRepAlgoAPI_Cut() : new oc.BRepAlgoAPI_Fuse());
    const args = own(new oc.NCollection_List_TopoDS_Shape());
    const list = own(new oc.NCollection_List_TopoDS_Shape());
    args.Append(base.shape);
    for (const t of tools) list.Append(t.shape);
    b.SetArguments(args);
    b.SetTools(list);
    b.SetNonDestructive(true);
    b.Build(own(new oc.Message_ProgressRange()));
    if (b.HasErrors()) return fail(problems.cannotJoin());
    if (op === "leave") b.SimplifyResult(true, true, CONTACT);
    const made = follow(oc, b.Shape(), b, [base, ...tools], null);
    if (isClosed(oc, made.shape)) return ok(made);
    made.shape.delete();
    return fail(problems.notClosed());
  });
}
