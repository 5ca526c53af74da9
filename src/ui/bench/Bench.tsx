"use client";
import { useEffect, useState, type ReactNode } from "react";
import Link from "next/link";
import { api, Refused } from "../store/api";
import { useBench, type Step } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { showStanding, useKeepStanding } from "../engine/standing";
import { useEngine } from "../engine/useEngine";
import { ErrorFence } from "../common/ErrorFence";
import { useLight } from "../common/light";
import { ShapeCard } from "../card/ShapeCard";
import { PrintCard } from "../print/PrintCard";
import { PrintTable } from "../print/PrintTable";
import { StockCard } from "../stock/StockCard";
import { HoldCard } from "../hold/HoldCard";
import { PathsCard } from "../paths/PathsCard";
import { ProofCard } from "../proof/ProofCard";
import { ReleaseCard } from "../release/ReleaseCard";
import { Reckoner } from "../reckon/Reckoner";
import { Readout } from "../readout/Readout";
import { Stage } from "../stage/Stage";
import { Head } from "./Head";
import { useKeys } from "./keys";
import { ConflictDialog, Notices } from "./Notices";
import { KeyList } from "./KeyList";
import css from "./Bench.module.css";
import { useShallow } from "zustand/react/shallow";

const cards: Record<Step, () => ReactNode> = {
  print: PrintCard,
  stock: StockCard,
  shape: ShapeCard,
  hold: HoldCard,
  paths: PathsCard,
  proof: ProofCard,
  release: ReleaseCard,
};

/** One job on the bench: the card on the left, the part on the stage, the readout under it. */
export function Bench({ id }: { id: string }) {
  const job = useJob((s) => s.job);
  const openId = useJob((s) => s.id);
  const open = useJob((s) => s.open);
  const { step, set } = useBench(useShallow((s) => ({ step: s.step, set: s.set })));
  const [problem, setProblem] = useState("");
  const startLight = useLight((s) => s.start);

  useEffect(() => {
    startLight();
    let live = true;
    set({
      openFor: id,
      evaluated: null,
      checking: false,
      planned: null,
      atRow: null,
      picture: null,
      selected: null,
      openRow: null,
      showRow: null,
      picked: null,
      measured: [],
      ghost: null,
      balloon: null,
      picking: null,
      wipe: null,
      openOutline: null,
      outlineDraft: null,
      step: "shape",
      view: "pictorial",
    });
    // What the server kept is only quicker: without it everything is computed.
    showStanding(id).catch(() => {});
    api.read(id).then(
      (s) => {
        if (live) void open(s);
      },
      (e) => {
        if (live) setProblem(e instanceof Refused ? e.message : "the server does not answer");
      },
    );
    return () => {
      live = false;
      useJob.getState().close();
    };
  }, [id, open, set, startLight]);

  useEngine(openId === id ? job : null);
  useKeepStanding(id);
  useKeys();

  if (problem)
    return (
      <main className={css.away}>
        <p>{problem}</p>
        <Link href="/">back to the shelf</Link>
      </main>
    );
  if (!job || openId !== id)
    return (
      <main className={css.away}>
        <p>opening the job …</p>
      </main>
    );
  const Card = cards[step];
  return (
    <div className={css.bench}>
      <Head job={job} />
      <aside className={css.card} aria-label={`${step} card`}>
        <ErrorFence what="The card" key={step}>
          <Card />
        </ErrorFence>
      </aside>
      <main className={css.main}>
        <ErrorFence what="The stage" key={step === "print" ? "print" : "stage"}>
          {step === "print" ? <PrintTable /> : <Stage job={job} />}
        </ErrorFence>
        <Notices />
        <Readout job={job} />
        <Reckoner job={job} />
      </main>
      <KeyList />
      <ConflictDialog job={job} />
    </div>
  );
}
