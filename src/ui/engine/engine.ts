"use client";
import * as Comlink from "comlink";
import { shopMark } from "@/core/tables";
import type { EngineDoor } from "@/kernel/worker";
import { useShop } from "../store/shopStore";

let worker: Worker | null = null;
let remote: Comlink.Remote<EngineDoor> | null = null;

/** The solid engine in its own worker. */
export function engine(): Comlink.Remote<EngineDoor> {
  if (!remote) {
    worker = new Worker(new URL("../../kernel/worker.ts", import.meta.url), { type: "module" });
    remote = Comlink.wrap<EngineDoor>(worker);
    // Before anything else is asked of it: messages keep their order.
    void remote.setShop(useShop.getState().settings);
  }
  return remote;
}

useShop.subscribe((now, before) => {
  if (shopMark(now.settings) !== shopMark(before.settings)) void remote?.setShop(now.settings);
});

/** Stops whatever the engine is doing by starting a new one. */
export function restartEngine(): void {
  worker?.terminate();
  worker = null;
  remote = null;
}
