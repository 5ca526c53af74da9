"use client";
import { Button } from "antd";
import { DndContext, useDroppable } from "@dnd-kit/core";
import type { ReactNode } from "react";
import type { Finding } from "@/core/findings";
import { jobOf, type JobDocument, type Setup } from "@/core/job";
import { showVolume, type LengthUnit } from "@/core/number";
import { Body, Section } from "../common/Section";
import { Remark } from "../card/RedPencil";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { isAboutHolding } from "@/core/findings/holding";
import { useSetups } from "../store/setupsStore";
import css from "./HoldCard.module.css";
import { emptySetup, nextOp, setSetups, setupsProposed } from "./setupEdits";
import { SetupLine } from "./SetupLine";
import { SetupPanel } from "./SetupPanel";
import { useRowDragging } from "./useRowDragging";
import { useSetupsEngine } from "./useSetupsEngine";

/** What the workpiece's own remarks say of how it is held; of another part they are not said here. */
function useToldOfHolding(document: JobDocument): Finding[] {
  const findings = useBench((s) => s.evaluated?.evaluation.findings);
  const isWork = useJob((s) => s.part === null || s.part === document.parts[0].id);
  return isWork ? (findings?.filter((f) => isAboutHolding(f.rule) && !f.waived) ?? []) : [];
}

/** The Hold step: the routing as a ruled strip, one setup open in place, the piece in it on the stage. */
export function HoldCard() {
  const document = useJob((s) => s.document)!;
  const open = useSetups((s) => s.open);
  const set = useSetups((s) => s.set);
  const view = useSetups((s) => s.view);
  const told = useToldOfHolding(document);
  const job = jobOf(document);
  // A job without setups is looked at as one that holds nothing yet.
  const setups = document.setups.length ? document.setups : [emptySetup];
  const at = setups.some((s) => s.op === open) ? open! : setups[0].op;
  useSetupsEngine(document, at);
  const viewOf = (setup: Setup) => view?.setups.find((v) => v.op === setup.op) ?? null;
  return (
    <>
      <RoutingHead setups={document.setups} />
      <Body>
        <DndContext {...useRowDragging()}>
          {setups.map((setup) => {
            const isOpen = setup.op === at;
            const shared = { setup, job, view: viewOf(setup) };
            return (
              <SetupBlock key={setup.op} op={setup.op} isOpen={isOpen}>
                <SetupLine {...shared} isOpen={isOpen} open={() => set({ open: setup.op })} />
                {isOpen && <SetupPanel {...shared} document={document} told={setup === setups[0] ? told : []} />}
              </SetupBlock>
            );
          })}
        </DndContext>
        <RoutingRemarks />
        <Section title="Caution">
          <p className="soft" style={{ margin: 0 }}>
            Grip, reach and clearances are geometry only. Clamping force, jaw speed, the ratings of vise and chuck and
            whether the piece is safe are judged at the machine by a qualified person, by the maker’s manual.
          </p>
        </Section>
      </Body>
      <RoutingFoot document={document} at={at} />
    </>
  );
}

/** A setup with its panel: a row is dropped anywhere on it. */
function SetupBlock({ op, isOpen, children }: { op: number; isOpen: boolean; children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id: op });
  return (
    <div ref={setNodeRef} className={`${css.setup} ${isOpen ? css.open : ""} ${isOver ? css.over : ""}`}>
      {children}
    </div>
  );
}

function RoutingRemarks() {
  const view = useSetups((s) => s.view);
  const remarks = view?.findings.filter((f) => f.setup === null || f.rule === "turn-over") ?? [];
  if (!remarks.length) return null;
  return (
    <div className={css.remarks} aria-label="Remarks on the routing">
      {remarks.map((f, i) => (
        <Remark key={i} finding={f} wide />
      ))}
    </div>
  );
}

/** Whether every row has a setup that cuts it whole. */
function rowsWords(document: JobDocument, unassigned: readonly number[] | undefined): string {
  if (!document.setups.some((s) => s.rows)) return "rows have no setups of their own yet";
  if (!unassigned) return "rows not looked at yet";
  return unassigned.length ? `not cut whole: rows ${unassigned.join(", ")}` : "every row has a setup";
}

function RoutingFoot({ document, at }: { document: JobDocument; at: number }) {
  const view = useSetups((s) => s.view);
  const add = () => setSetups([...document.setups, { ...emptySetup, op: nextOp(document.setups) }], "new setup");
  return (
    <div className={css.foot}>
      <span>{rowsWords(document, view?.unassigned)}</span>
      <span>{leftAfter(view, at, document.unit)}</span>
      <Button size="small" onClick={add}>
        add setup
      </Button>
    </div>
  );
}

/** What is still to be cut when a setup is done: what the last one leaves is the part. */
function leftAfter(view: ReturnType<typeof useSetups.getState>["view"], op: number, unit: LengthUnit): string {
  const here = view?.setups.find((s) => s.op === op);
  const last = view?.setups[view.setups.length - 1];
  if (here?.after == null || last?.after == null) return "";
  return `left to cut after ${op}: ${showVolume(Math.max(0, here.after - last.after), unit)}`;
}

function RoutingHead({ setups }: { setups: Setup[] }) {
  const view = useSetups((s) => s.view);
  const busy = useSetups((s) => s.busy);
  const turns = setups.slice(1).filter((s, i) => JSON.stringify(s.up) !== JSON.stringify(setups[i].up)).length;
  const plural = (n: number, word: string) => `${n} ${word}${n === 1 ? "" : "s"}`;
  // Before it is worked out nothing is said of balloons.
  const across = view ? `, ${plural(view.marked.length, "balloon")} across one` : "";
  return (
    <div className={css.head}>
      <h2>Routing</h2>
      <span>
        {setups.length ? `${plural(setups.length, "setup")}, ${plural(turns, "turn-over")}${across}` : "no setups yet"}
        {busy ? " …" : ""}
      </span>
      <Button
        size="small"
        disabled={!view?.proposed.length}
        title="the fewest setups from which every row is reached"
        onClick={() => setSetups(setupsProposed(), "proposed routing")}
      >
        propose
      </Button>
    </div>
  );
}
