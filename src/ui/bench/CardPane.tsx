"use client";
import { lazy, Suspense, useEffect, type ComponentType } from "react";
import { ShapeCard } from "../card/ShapeCard";
import { ErrorFence } from "../common/ErrorFence";
import { stepName, useBench, type Step } from "../store/benchStore";
import css from "./Bench.module.css";

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
/** The print on the table: it is fetched with the cards. */
export const PrintTable = lazy(later.PrintTable);
const cards: Record<Step, ComponentType> = {
  print: lazy(later.PrintCard),
  stock: lazy(later.StockCard),
  shape: ShapeCard,
  hold: lazy(later.HoldCard),
  paths: lazy(later.PathsCard),
  proof: lazy(later.ProofCard),
  release: lazy(later.ReleaseCard),
};

/** Fetches the other steps' cards once the part is on the stage: turning to a step then waits for nothing. */
export function useCardsFetched(): void {
  const shown = useBench((s) => s.picture !== null || s.evaluated !== null);
  useEffect(() => {
    if (!shown) return;
    const timer = setTimeout(() => Object.values(later).forEach((fetchIt) => void fetchIt()), 500);
    return () => clearTimeout(timer);
  }, [shown]);
}

/** The card of the step at hand. */
export function CardPane({ step }: { step: Step }) {
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
