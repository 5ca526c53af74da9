"use client";
import * as Comlink from "comlink";
import type { EngineDoor } from "@/kernel/worker";

let worker: Worker | null = null;
let remote: Comlink.Remote<EngineDoor> | null = null;

/** The solid engine in its own worker. */
export function engine(): Comlink.Remote<EngineDoor> {
  if (!remote) {
    worker = new Worker(new URL("../../kernel/worker.ts", import.meta.url), { type: "module" });
    remote = Comlink.wrap<EngineDoor>(worker);
  }
  return remote;
}

/** Stops whatever the engine is doing by starting a new one. */
export function restartEngine(): void {
  worker?.terminate();
  worker = null;
  remote = null;
}
