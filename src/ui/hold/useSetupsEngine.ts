"use client";
import { useEffect } from "react";
import type { JobDocument } from "@/core/job";
import { engine } from "../engine/engine";
import { useBench } from "../store/benchStore";
import { useSetups } from "../store/setupsStore";

let turn = 0;

/** Keeps what is known of the setups in step with the job, while they are looked at. */
/** @param open op number of the setup that is looked at */
export function useSetupsEngine(document: JobDocument, open: number): void {
  const moment = useSetups((s) => s.moment);
  const isBusy = useBench((s) => s.busy);
  useEffect(() => {
    // The part comes first: its setups are worked out when it stands.
    if (isBusy) return;
    const mine = ++turn;
    const { set } = useSetups.getState();
    set({ busy: true });
    const machine = document.setups.find((s) => s.op === open)?.machine ?? null;
    const plain = JSON.parse(JSON.stringify(document)) as JobDocument;
    engine()
      .setups(plain, open, moment)
      .then(
        ({ view, bodies }) => {
          if (mine === turn) set({ view, bodies, shown: open, machine, busy: false, problem: "" });
        },
        (e) => {
          if (mine === turn)
            set({ busy: false, problem: e instanceof Error ? e.message : "the setups cannot be told" });
        },
      );
  }, [document, open, moment, isBusy]);
  useEffect(
    () => () => {
      turn++;
      useSetups.getState().set({ bodies: [], open: null, moment: "start", opened: 0, busy: false });
    },
    [],
  );
}
