"use client";
import { Button } from "antd";
import { DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors, type DragEndEvent } from "@dnd-kit/core";
import { jobOf, type Setup } from "@/core/job";
import { showVolume } from "@/core/number";
import { Body, Section } from "../common/Section";
import { Remark } from "../card/RedPencil";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { isAboutHolding } from "@/core/findings/holding";
import { useSetups } from "../store/setupsStore";
import css from "./HoldCard.module.css";
import { emptySetup, moveRow, nextOp, setSetups, setupsProposed } from "./setupEdits";
import { SetupLine } from "./SetupLine";
import { SetupPanel } from "./SetupPanel";
import { useSetupsEngine } from "./useSetupsEngine";

/** The Hold step: the routing as a ruled strip, one setup open in place, the piece in it on the stage. */
export function HoldCard() {
  const document = useJob((s) => s.document)!;
  const open = useSetups((s) => s.open);
  const set = useSetups((s) => s.set);
  const view = useSetups((s) => s.view);
  const job = jobOf(document);
  const findings = useBench((s) => s.evaluated?.evaluation.findings);
  const isWork = useJob((s) => s.part === null || s.part === document.parts[0].id);
  const told = isWork ? (findings?.filter((f) => isAboutHolding(f.rule) && !f.waived) ?? []) : [];
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor),
  );
  // A job without setups is looked at as one that holds nothing yet.
  const setups = document.setups.length ? document.setups : [emptySetup];
  const at = setups.some((s) => s.op === open) ? open! : setups[0].op;
  useSetupsEngine(document, at);
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over) moveRow(String(active.data.current?.row), Number(active.data.current?.op), Number(over.id));
  };
  const remarks = view?.findings.filter((f) => f.setup === null || f.rule === "turn-over") ?? [];
  return (
    <>
      <RoutingHead setups={document.setups} />
      <Body>
        <DndContext sensors={sensors} onDragEnd={dropped}>
          {setups.map((setup) => (
            <div key={setup.op} className={`${css.setup} ${setup.op === at ? css.open : ""}`}>
              <SetupLine
                setup={setup}
                job={job}
                view={view?.setups.find((v) => v.op === setup.op) ?? null}
                isOpen={setup.op === at}
                open={() => set({ open: setup.op })}
              />
              {setup.op === at && (
                <SetupPanel
                  setup={setup}
                  job={job}
                  document={document}
                  view={view?.setups.find((v) => v.op === setup.op) ?? null}
                  told={setup === setups[0] ? told : []}
                />
              )}
            </div>
          ))}
        </DndContext>
        {remarks.length > 0 && (
          <div className={css.remarks} aria-label="Remarks on the routing">
            {remarks.map((f, i) => (
              <Remark key={i} finding={f} wide />
            ))}
          </div>
        )}
        <Section title="Caution">
          <p className="soft" style={{ margin: 0 }}>
            Grip, reach and clearances are geometry only. Clamping force, jaw speed, the ratings of vise and chuck and
            whether the piece is safe are judged at the machine by a qualified person, by the maker’s manual.
          </p>
        </Section>
      </Body>
      <div className={css.foot}>
        <span>
          {view && document.setups.some((s) => s.rows)
            ? view.unassigned.length
              ? `not cut whole: rows ${view.unassigned.join(", ")}`
              : "every row has a setup"
            : "rows have no setups of their own yet"}
        </span>
        <span>{leftAfter(view, at, document.unit)}</span>
        <Button
          size="small"
          onClick={() => setSetups([...document.setups, { ...emptySetup, op: nextOp(document.setups) }], "new setup")}
        >
          add setup
        </Button>
      </div>
    </>
  );
}

/** What is still to be cut when a setup is done: what the last one leaves is the part. */
function leftAfter(view: ReturnType<typeof useSetups.getState>["view"], op: number, unit: "in" | "mm"): string {
  const here = view?.setups.find((s) => s.op === op);
  const last = view?.setups[view.setups.length - 1];
  if (here?.after == null || last?.after == null) return "";
  return `left to cut after ${op}: ${showVolume(Math.max(0, here.after - last.after), unit)}`;
}

function RoutingHead({ setups }: { setups: Setup[] }) {
  const view = useSetups((s) => s.view);
  const busy = useSetups((s) => s.busy);
  const marked = view?.marked.length ?? 0;
  const turns = setups.slice(1).filter((s, i) => JSON.stringify(s.up) !== JSON.stringify(setups[i].up)).length;
  const plural = (n: number, word: string) => `${n} ${word}${n === 1 ? "" : "s"}`;
  return (
    <div className={css.head}>
      <h2>Routing</h2>
      <span>
        {setups.length
          ? `${plural(setups.length, "setup")}, ${plural(turns, "turn-over")}, ${plural(marked, "balloon")} across one`
          : "no setups yet"}
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
