"use client";
import { lazy, Suspense, useState } from "react";
import Link from "next/link";
import { useShallow } from "zustand/react/shallow";
import type { Job, StoredJob } from "@/core/job";
import type { ShopSettings } from "@/core/tables";
import { useBench } from "../store/benchStore";
import { ErrorFence } from "../common/ErrorFence";
import { Readout } from "../readout/Readout";
import { Stage } from "../stage/Stage";
import { CardPane, PrintTable, useCardsFetched } from "./CardPane";
import { Head } from "./Head";
import { useKeys } from "./keys";
import { KeyList } from "./KeyList";
import { ConflictDialog, Notices } from "./Notices";
import { Panes } from "./Panes";
import { useOpening } from "./useOpening";
import css from "./Bench.module.css";

const Reckoner = lazy(() => import("../reckon/Reckoner").then((m) => ({ default: m.Reckoner })));

interface Props {
  id: string;
  stored: StoredJob | null;
  drawn: string | null;
  shop: ShopSettings;
}

/** One job on the bench: the card on the left, the part on the stage, the readout under it. */
export function Bench({ id, stored, drawn, shop }: Props) {
  const { job, problem } = useOpening(id, stored, shop);
  const step = useBench((s) => s.step);
  useCardsFetched();
  useKeys();
  if (problem)
    return (
      <main className={css.away}>
        <p>{problem}</p>
        <Link href="/">back to the shelf</Link>
      </main>
    );
  if (!job)
    return (
      <main className={css.away}>
        {/* Drawn by our own server from numbers only. */}
        {drawn && <div className={css.drawn} aria-hidden="true" dangerouslySetInnerHTML={{ __html: drawn }} />}
        <p>opening the job …</p>
      </main>
    );
  return (
    <div className={css.bench}>
      <a className="skip" href="#card">
        to the card
      </a>
      <Head job={job} />
      <Panes card={<CardPane step={step} />} main={<PicturePane job={job} />} />
      <KeyList />
      <ConflictDialog job={job} />
    </div>
  );
}

/** The part on the stage or the print on the table, what is said over it, and the readout under it. */
function PicturePane({ job }: { job: Job }) {
  const { step, reckoner } = useBench(useShallow((s) => ({ step: s.step, reckoner: s.reckoner })));
  // Once opened it stays, closed or not: what was typed in it stays with it.
  const [reckoned, setReckoned] = useState(false);
  if (reckoner && !reckoned) setReckoned(true);
  return (
    <main className={css.main}>
      <ErrorFence what="The stage" key={step === "print" ? "print" : "stage"}>
        <Suspense fallback={null}>{step === "print" ? <PrintTable /> : <Stage job={job} />}</Suspense>
      </ErrorFence>
      <Notices />
      <Readout job={job} />
      {reckoned && (
        <Suspense fallback={null}>
          <Reckoner job={job} />
        </Suspense>
      )}
    </main>
  );
}
