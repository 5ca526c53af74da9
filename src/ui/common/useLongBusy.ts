"use client";
import { useEffect, useState } from "react";
import { useShallow } from "zustand/react/shallow";
import { useBench } from "../store/benchStore";

/** Whether the engine has been at it for longer than one would not notice, ms: what is shown is from before. */
export function useLongBusy(noticed: number): boolean {
  const { busy, busySince } = useBench(useShallow((s) => ({ busy: s.busy, busySince: s.busySince })));
  const [isLong, setLong] = useState(false);
  useEffect(() => {
    if (!busy) return setLong(false);
    const timer = setTimeout(() => setLong(true), Math.max(0, noticed - (performance.now() - busySince)));
    return () => clearTimeout(timer);
  }, [busy, busySince, noticed]);
  return isLong;
}
