import { EdgeCache } from "./edgeCache";
import { FaceCache } from "./faceCache";
import { Grooves } from "./grooves";
import { InsertTools } from "./insertion/tools";
import type { OC } from "./oc";
import { StepSolids } from "./stepSolids";
import { FaceHandles } from "./state";

/** The solid library with what is remembered of its faces and edges: one a kernel. */
export class Library {
  readonly faces: FaceCache;
  readonly edges: EdgeCache;
  readonly grooves: Grooves;
  readonly insertTools: InsertTools;
  readonly stepSolids: StepSolids;
  readonly handles = new FaceHandles();
  constructor(readonly oc: OC) {
    this.faces = new FaceCache(oc);
    this.edges = new EdgeCache(oc, this.faces);
    this.grooves = new Grooves(oc);
    this.stepSolids = new StepSolids(oc);
    this.insertTools = new InsertTools(oc, this.faces);
  }
}
