"use client";
import { useEffect, useRef, useState } from "react";
import {
  defaultLimits,
  fixtureFigures,
  mergedSettings,
  shopMark,
  type FixturePractice,
  type Limits,
  type ShopSettings,
} from "@/core/tables";
import { api, Refused } from "../store/api";
import { useShop } from "../store/shopStore";
import { forgetShop, keepShop, readShop } from "../store/unsentShop";

/** How it stands with keeping what was set. */
export type Keeping = "kept" | "keeping" | "away" | "refused";

/** Keeps settings with the server, one after the other; until they are kept they stand in the browser too. */
function useKeeping(first: ShopSettings, show: (settings: ShopSettings) => void) {
  const [keeping, setKeeping] = useState<Keeping>("kept");
  const [problem, setProblem] = useState("");
  /** What the server has, and what it is to have next. */
  const server = useRef(first);
  const wanted = useRef<ShopSettings | null>(null);
  const isBusy = useRef(false);
  const pause = useRef(FIRST_PAUSE);

  /** What others have kept meanwhile goes with what is set here; where both have set the same, theirs stands. */
  const merge = async (mine: ShopSettings) => {
    const theirs = await api.shopSettings();
    const { settings, both } = mergedSettings(server.current, mine, theirs);
    server.current = theirs;
    show(settings);
    if (both.length)
      setProblem(`changed in another window meanwhile, and taken from there: ${both.map(titleOf).join(", ")}`);
    return settings;
  };
  const keepOne = async (next: ShopSettings): Promise<void> => {
    await api.keepShopSettings(next, shopMark(server.current));
    server.current = next;
    useShop.getState().have(next);
  };
  const send = async () => {
    if (isBusy.current) return;
    isBusy.current = true;
    while (wanted.current) {
      const next = wanted.current;
      setKeeping("keeping");
      try {
        await keepOne(next);
        if (wanted.current === next) wanted.current = null;
        pause.current = FIRST_PAUSE;
      } catch (e) {
        const merged = e instanceof Refused && e.status === 409 ? await merge(next).catch(() => null) : null;
        if (merged && wanted.current === next) wanted.current = merged;
        if (merged) continue;
        const refused = e instanceof Refused && e.status < 500;
        setKeeping(refused ? "refused" : "away");
        setProblem(e instanceof Refused ? e.message : "the server does not answer; what is set here is sent again");
        if (!refused) setTimeout(() => void send(), (pause.current = Math.min(LONGEST_PAUSE, pause.current * 2)));
        break;
      }
    }
    isBusy.current = false;
    if (wanted.current) return;
    setKeeping("kept");
    void forgetShop();
  };
  const keep = (next: ShopSettings) => {
    wanted.current = next;
    setProblem("");
    void keepShop({ base: server.current, settings: next });
    void send();
  };
  return { keeping, problem, keep, again: () => void send() };
}
const FIRST_PAUSE = 500;
const LONGEST_PAUSE = 30_000;

const titleOf = (key: string): string =>
  defaultLimits[key as keyof Limits]?.title ?? fixtureFigures[key as keyof FixturePractice]?.title ?? key;

/** The shop's settings as they are being set, with what can be undone. */
export function useSettings(first: ShopSettings) {
  const [settings, setSettings] = useState(first);
  const [past, setPast] = useState<ShopSettings[]>([]);
  const [future, setFuture] = useState<ShopSettings[]>([]);
  const { keep, ...kept } = useKeeping(first, setSettings);
  useEffect(() => {
    // What a page that was left had not got kept any more is set again, on top of what is there now.
    void readShop().then((left) => {
      if (!left || shopMark(left.settings) === shopMark(first)) return;
      const { settings: both } = mergedSettings(left.base, left.settings, first);
      setPast([first]);
      setSettings(both);
      keep(both);
    });
    // Once, as the page opens.
  }, []);
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
