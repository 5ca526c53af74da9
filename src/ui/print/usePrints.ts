import { App } from "antd";
import { useEffect, useState } from "react";
import type { Print, Region } from "@/core/job";
import { freshId } from "../bench/actions";
import { api, Refused } from "../store/api";
import { useJob } from "../store/jobStore";
import type { Spot } from "./PrintSheet";

const MAX = 20_000_000;
/** Places picked for one calibration: two on the part's line, two that are a distance apart. */
const PICKED = 4;

/** What is being done on the sheet: a balloon pinned, or a stretch calibrated. */
export type Doing = { place: number } | { calibrate: Spot[]; region: number } | null;

/** The prints of the job: which lies on the table, and what is done with it. */
export function usePrints() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const [chosen, setChosen] = useState<string | null>(null);
  const [page, setPage] = useState(1);
  const [doing, setDoing] = useState<Doing>(null);
  const print = job.prints.find((p) => p.id === chosen) ?? job.prints[0];
  useEscape(doing !== null, () => setDoing(null));
  const put = (prints: Print[]) => edit([{ edit: "setPrints", prints }], "print");
  const change = (next: Print) => put(job.prints.map((x) => (x.id === next.id ? next : x)));
  const show = (id: string) => {
    setChosen(id);
    setPage(1);
    setDoing(null);
  };
  const pin = (number: number, p: Spot) => {
    const b = job.balloons.find((x) => x.number === number);
    const place = { print: print.id, ...(page > 1 ? { page } : {}), ...p };
    if (b) edit([{ edit: "setBalloon", number, balloon: { ...b, place } }], "pin balloon");
    const next = job.balloons.find((x) => !x.place && x.number !== number);
    setDoing(next ? { place: next.number } : null);
  };
  return {
    job,
    print: print as Print | undefined,
    page,
    setPage,
    doing,
    setDoing,
    show,
    add: (p: Print) => {
      put([...useJob.getState().job!.prints, p]);
      show(p.id);
    },
    takeOff: () => put(job.prints.filter((p) => p.id !== print.id)),
    turn() {
      const { turn: was, ...rest } = print;
      const turn = (((was ?? 0) + 1) % 4) as 0 | 1 | 2 | 3;
      change(turn ? { ...rest, turn } : rest);
    },
    /** A place picked on the sheet. */
    spot(p: Spot) {
      if (!doing) return;
      if ("place" in doing) return pin(doing.place, p);
      setDoing({ ...doing, calibrate: doing.calibrate.length >= PICKED ? [p] : [...doing.calibrate, p] });
    },
    setRegion(i: number, r: Region | null) {
      const { regions } = print;
      const others = r === null ? regions.filter((_, k) => k !== i) : regions.map((x, k) => (k === i ? r : x));
      change({ ...print, regions: r !== null && i >= regions.length ? [...regions, r] : others });
      setDoing(null);
    },
  };
}
/** Escape gives up what is being done. */
function useEscape(isOn: boolean, giveUp: () => void): void {
  useEffect(() => {
    if (!isOn) return;
    const pressed = (e: KeyboardEvent) => {
      if (e.key === "Escape") giveUp();
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, [isOn]);
}

export type Prints = ReturnType<typeof usePrints>;

/** Keeps the picture of a print with the server, and puts it on the table. */
export function useUpload(add: (p: Print) => void) {
  const [busy, setBusy] = useState(false);
  const { message } = App.useApp();
  const say = (text: string) => void message.error(text, 6);
  const upload = async (f: File) => {
    if (f.size > MAX) return say(`${f.name} has ${(f.size / 1e6).toFixed(1)} MB; at most ${MAX / 1e6} MB are kept`);
    setBusy(true);
    try {
      const { hash, mediaType } = await api.attach(f);
      if (mediaType === "model/step") return say(`${f.name} is a solid: it is read at Shape`);
      add({ id: freshId(), name: f.name.slice(0, 120) || "print", attachment: hash, mediaType, regions: [] });
    } catch (e) {
      say(e instanceof Refused ? `${f.name}: ${e.message}` : "the server does not answer; the print was not kept");
    } finally {
      setBusy(false);
    }
  };
  return { busy, upload };
}
