"use client";
import { useRef, useState } from "react";
import { shopMark, type ShopSettings } from "@/core/tables";
import { api, Refused } from "../store/api";
import { useShop } from "../store/shopStore";

/** How it stands with keeping what was set. */
export type Keeping = "kept" | "keeping" | "away" | "refused";

/** Keeps settings with the server, one after the other. */
function useKeeping(first: ShopSettings) {
  const [keeping, setKeeping] = useState<Keeping>("kept");
  const [problem, setProblem] = useState("");
  /** What the server has, and what it is to have next. */
  const server = useRef(shopMark(first));
  const wanted = useRef<ShopSettings | null>(null);
  const isBusy = useRef(false);

  const keepOne = async (next: ShopSettings): Promise<boolean> => {
    setKeeping("keeping");
    try {
      await api.keepShopSettings(next, server.current);
      server.current = shopMark(next);
      useShop.getState().have(next);
      setKeeping("kept");
      setProblem("");
      return true;
    } catch (e) {
      // What could not be kept is sent with whatever is set next, or when it is asked for.
      wanted.current ??= next;
      setKeeping(e instanceof Refused ? "refused" : "away");
      setProblem(e instanceof Refused ? e.message : "the server does not answer; what is set here is not kept yet");
      return false;
    }
  };
  const send = async () => {
    if (isBusy.current) return;
    isBusy.current = true;
    let isGoing = true;
    while (wanted.current && isGoing) {
      const next = wanted.current;
      wanted.current = null;
      isGoing = await keepOne(next);
    }
    isBusy.current = false;
  };
  const keep = (next: ShopSettings) => {
    wanted.current = next;
    void send();
  };
  return { keeping, problem, keep, again: () => void send() };
}

/** The shop's settings as they are being set, with what can be undone. */
export function useSettings(first: ShopSettings) {
  const [settings, setSettings] = useState(first);
  const [past, setPast] = useState<ShopSettings[]>([]);
  const [future, setFuture] = useState<ShopSettings[]>([]);
  const { keep, ...kept } = useKeeping(first);
  const go = (to: ShopSettings, before: ShopSettings[], after: ShopSettings[]) => {
    setPast(before);
    setFuture(after);
    setSettings(to);
    keep(to);
  };
  return {
    settings,
    ...kept,
    put: (next: ShopSettings) => go(next, [...past, settings], []),
    undo: past.length ? () => go(past[past.length - 1], past.slice(0, -1), [settings, ...future]) : null,
    redo: future.length ? () => go(future[0], [...past, settings], future.slice(1)) : null,
  };
}
