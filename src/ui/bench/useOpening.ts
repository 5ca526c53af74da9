"use client";
import { App } from "antd";
import { useEffect, useState } from "react";
import type { StoredJob } from "@/core/job";
import type { ShopSettings } from "@/core/tables";
import { useLight } from "../common/light";
import { showStanding, useKeepStanding } from "../engine/standing";
import { useEngine } from "../engine/useEngine";
import { api, Refused } from "../store/api";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { useShop } from "../store/shopStore";
import { placeOf } from "../store/place";
import { openAddressed, useAddress, useTitle } from "./useAddress";

/**
 * Whether a job has been opened since the page came from the server. The one that came with it is used once: what the
 * page has saved since is newer.
 */
let arrived = false;

/** The bench as it is laid for a job that is opened: at the place its address names. */
function laidFor(id: string) {
  const { step, row } = placeOf(location.search);
  return {
    openFor: id,
    step,
    openRow: row,
    view: "pictorial" as const,
    evaluated: null,
    checking: false,
    planned: null,
    atRow: null,
    picture: null,
    selected: null,
    showRow: null,
    folded: [],
    picked: null,
    measured: [],
    ghost: null,
    balloon: null,
    claimed: null,
    picking: null,
    wipe: null,
    openOutline: null,
    outlineDraft: null,
  };
}

/**
 * Opens a job as long as its page stands.
 * @param stored the job as it came with the page; null where it has to be asked for
 * @param shop the shop's figures as they came with it
 * @returns why it could not be opened, or nothing
 */
function useStored(id: string, stored: StoredJob | null, shop: ShopSettings): string {
  const [problem, setProblem] = useState("");
  const set = useBench((s) => s.set);
  const open = useJob((s) => s.open);
  const startLight = useLight((s) => s.start);
  useEffect(() => {
    startLight();
    let live = true;
    set(laidFor(id));
    // What the server kept is only quicker: without it everything is computed. The engine starts when it is there, for
    // both want the same processor.
    const shown = showStanding(id).catch(() => {});
    const figures = arrived ? api.shopSettings().catch(() => null) : Promise.resolve(shop);
    const opened = async (s: StoredJob) => {
      const [set] = await Promise.all([figures, shown]);
      if (!live) return;
      if (set) useShop.getState().have(set);
      open(s);
    };
    const read = arrived ? null : stored;
    arrived = true;
    (read ? Promise.resolve(read) : api.read(id)).then(opened, (e) => {
      if (live) setProblem(e instanceof Refused ? e.message : "the server does not answer");
    });
    return () => {
      live = false;
      useJob.getState().close();
    };
  }, [id, open, set, startLight, stored, shop]);
  return problem;
}

/** What another window has replaced meanwhile is looked for when this one is looked at again. */
function useReplaced(isOpen: boolean) {
  const look = useJob((s) => s.lookAside);
  useEffect(() => {
    if (!isOpen) return;
    const seen = () => void (document.visibilityState === "visible" && look());
    window.addEventListener("focus", seen);
    document.addEventListener("visibilitychange", seen);
    return () => {
      window.removeEventListener("focus", seen);
      document.removeEventListener("visibilitychange", seen);
    };
  }, [isOpen, look]);
}

/** A job opened with all that goes on while it is: the engine, its address, the window's title. */
export function useOpening(id: string, stored: StoredJob | null, shop: ShopSettings) {
  const problem = useStored(id, stored, shop);
  const isOpen = useJob((s) => s.id === id);
  const shown = useJob((s) => s.job);
  const job = isOpen ? shown : null;
  const { message } = App.useApp();
  useEngine(job);
  useKeepStanding(id);
  useAddress(isOpen);
  useTitle(job?.name);
  useReplaced(isOpen);
  useEffect(() => {
    if (isOpen && openAddressed()) void message.info("the row of this address is gone: the card shows the others", 6);
  }, [isOpen, message]);
  return { job, problem };
}
