"use client";
import { lazy, Suspense, useEffect, useState, type ComponentType, type ReactNode } from "react";
import Link from "next/link";
import type { StoredJob } from "@/core/job";
import { api, Refused } from "../store/api";
import { stepName, useBench, type Step } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { showStanding, useKeepStanding } from "../engine/standing";
import { useEngine } from "../engine/useEngine";
import { ErrorFence } from "../common/ErrorFence";
import { useNarrow } from "../common/useNarrow";
import { useLight } from "../common/light";
import { ShapeCard } from "../card/ShapeCard";
import { Readout } from "../readout/Readout";
import { Stage } from "../stage/Stage";
import { Head } from "./Head";
import { useKeys } from "./keys";
import { openAddressed, useAddress, useTitle } from "./useAddress";
import { placeOf } from "../store/place";
import { ConflictDialog, Notices } from "./Notices";
import { KeyList } from "./KeyList";
import css from "./Bench.module.css";
import { App, Segmented, Splitter } from "antd";
import { useShallow } from "zustand/react/shallow";

/** What is not needed for the first picture comes after it. */
const later = {
  PrintCard: () => import("../print/PrintCard").then((m) => ({ default: m.PrintCard })),
  PrintTable: () => import("../print/PrintTable").then((m) => ({ default: m.PrintTable })),
  StockCard: () => import("../stock/StockCard").then((m) => ({ default: m.StockCard })),
  HoldCard: () => import("../hold/HoldCard").then((m) => ({ default: m.HoldCard })),
  PathsCard: () => import("../paths/PathsCard").then((m) => ({ default: m.PathsCard })),
  ProofCard: () => import("../proof/ProofCard").then((m) => ({ default: m.ProofCard })),
  ReleaseCard: () => import("../release/ReleaseCard").then((m) => ({ default: m.ReleaseCard })),
};
const PrintTable = lazy(later.PrintTable);
const Reckoner = lazy(() => import("../reckon/Reckoner").then((m) => ({ default: m.Reckoner })));
const cards: Record<Step, ComponentType> = {
  print: lazy(later.PrintCard),
  stock: lazy(later.StockCard),
  shape: ShapeCard,
  hold: lazy(later.HoldCard),
  paths: lazy(later.PathsCard),
  proof: lazy(later.ProofCard),
  release: lazy(later.ReleaseCard),
};

const PANE = "sgorbia-pane";
/** Width of the card, px, as it was last drawn; kept in this browser. */
const keptPane = (): number => Number(globalThis.localStorage?.getItem(PANE)) || 452;
function keepPane(width: number): void {
  try {
    localStorage.setItem(PANE, String(Math.round(width)));
  } catch {
    // A private window keeps nothing.
  }
}

/** Fetches the other steps' cards once the part is on the stage: turning to a step then waits for nothing. */
function useCardsFetched(): void {
  const shown = useBench((s) => s.picture !== null || s.evaluated !== null);
  useEffect(() => {
    if (!shown) return;
    const timer = setTimeout(() => Object.values(later).forEach((fetchIt) => void fetchIt()), 500);
    return () => clearTimeout(timer);
  }, [shown]);
}

/**
 * Whether a job has been opened since the page came from the server. The one that came with it is used once: what the
 * page has saved since is newer.
 */
let arrived = false;

/** One job on the bench: the card on the left, the part on the stage, the readout under it. */
export function Bench({ id, stored, drawn }: { id: string; stored: StoredJob | null; drawn: string | null }) {
  const job = useJob((s) => s.job);
  const openId = useJob((s) => s.id);
  const open = useJob((s) => s.open);
  const { step, reckoner, set } = useBench(useShallow((s) => ({ step: s.step, reckoner: s.reckoner, set: s.set })));
  const [problem, setProblem] = useState("");
  // Once opened it stays, closed or not: what was typed in it stays with it.
  const [reckoned, setReckoned] = useState(false);
  if (reckoner && !reckoned) setReckoned(true);
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
      openRow: placeOf(location.search).row,
      showRow: null,
      folded: [],
      picked: null,
      measured: [],
      ghost: null,
      balloon: null,
      picking: null,
      wipe: null,
      openOutline: null,
      outlineDraft: null,
      step: placeOf(location.search).step,
      view: "pictorial",
    });
    // What the server kept is only quicker: without it everything is computed. The engine starts when it is there, for
    // both want the same processor.
    const shown = showStanding(id).catch(() => {});
    const opened = (s: StoredJob) => shown.then(() => (live ? open(s) : undefined));
    const read = arrived ? null : stored;
    arrived = true;
    (read ? Promise.resolve(read) : api.read(id)).then(opened, (e) => {
      if (live) setProblem(e instanceof Refused ? e.message : "the server does not answer");
    });
    return () => {
      live = false;
      useJob.getState().close();
    };
  }, [id, open, set, startLight, stored]);

  useEngine(openId === id ? job : null);
  useKeepStanding(id);
  useCardsFetched();
  useKeys();
  const { message } = App.useApp();
  useAddress(openId === id);
  useEffect(() => {
    if (openId === id && openAddressed())
      void message.info("the row of this address is gone: the card shows the others", 6);
  }, [openId, id, message]);
  useTitle(openId === id ? job?.name : undefined);

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
      <Panes
        card={<CardPane step={step} />}
        main={
          <main className={css.main}>
            <ErrorFence what="The stage" key={step === "print" ? "print" : "stage"}>
              <Suspense fallback={null}>{step === "print" ? <PrintTable /> : <Stage job={job} />}</Suspense>
            </ErrorFence>
            <Notices />
            <Readout job={job} />
            {(reckoner || reckoned) && (
              <Suspense fallback={null}>
                <Reckoner job={job} />
              </Suspense>
            )}
          </main>
        }
      />
      <KeyList />
      <ConflictDialog job={job} />
    </div>
  );
}

function CardPane({ step }: { step: Step }) {
  const Card = cards[step];
  return (
    <aside className={css.card} aria-label={`${step} card`} id="card" tabIndex={-1}>
      <h1 className="sr">{stepName(step)}</h1>
      <ErrorFence what="The card" key={step}>
        <Suspense fallback={null}>
          <Card />
        </Suspense>
      </ErrorFence>
    </aside>
  );
}

/** Card and stage side by side, or where there is no room for both, one of them at a time; both stay as they are. */
function Panes({ card, main }: { card: ReactNode; main: ReactNode }) {
  const narrow = useNarrow();
  const [pane] = useState(keptPane);
  const { front, set } = useBench(useShallow((s) => ({ front: s.front, set: s.set })));
  if (!narrow)
    return (
      <Splitter className={css.panes} onResizeEnd={([width]) => keepPane(width)}>
        <Splitter.Panel defaultSize={pane} min={380} max={760}>
          {card}
        </Splitter.Panel>
        <Splitter.Panel>{main}</Splitter.Panel>
      </Splitter>
    );
  return (
    <div className={css.single}>
      <Segmented
        block
        aria-label="What is shown"
        options={[
          { value: "card" as const, label: "card" },
          { value: "stage" as const, label: "picture" },
        ]}
        value={front}
        onChange={(v) => set({ front: v })}
      />
      <div hidden={front !== "card"}>{card}</div>
      <div hidden={front !== "stage"}>{main}</div>
    </div>
  );
}
