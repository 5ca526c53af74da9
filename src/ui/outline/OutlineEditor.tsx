"use client";
import { byFigures } from "@/core/number";
import { Button } from "antd";
import type { OutlineItem, OutlineText } from "@/core/outline/items";
import { writeOutlineItem } from "@/core/callout";
import { conflictWords } from "@/core/outline/wire";
import { TextField } from "../fields/TextField";
import { Entry } from "./Entry";
import { Defects, Figures } from "./Figures";
import { ItemLine } from "./ItemLine";
import css from "./Outline.module.css";
import { Tools } from "./Tools";
import { useOutline, type OpenOutline } from "./useOutline";

/**
 * One outline as its lines: a step, relation, dimension or shape each. The picture follows what is typed; what is
 * free, and what contradicts, is said in words.
 */
export function OutlineEditor({ outline }: { outline: OutlineText }) {
  const open = useOutline(outline);
  return (
    <section className={css.editor} aria-label="Outline">
      <header>
        <span className="lab">outline</span>
        <TextField
          aria-label="Name of the outline"
          value={outline.name}
          maxLength={120}
          commit={(name) => name && open.change({ ...outline, name })}
        />
        <Button size="small" onClick={open.close}>
          back to the route card
        </Button>
      </header>
      <Standing open={open} />
      <Lines open={open} />
      <Entry open={open} />
      <Tools open={open} />
      {open.drawn && <Figures drawn={open.drawn} unit={open.job.unit} />}
      {open.drawn && <Defects drawn={open.drawn} />}
    </section>
  );
}

/** How many places of what is free are named. */
const NAMED = 4;

const firstLines = { in: "LINE TO X 1.72, or CIRCLE ⌀.875", mm: "LINE TO X 40, or CIRCLE ⌀20" };

/** Whether it is located, what of it is free, and what contradicts. */
function Standing({ open: { drawn, outline, names, job } }: { open: OpenOutline }) {
  const wire = drawn?.wire;
  const isThere = Boolean(wire?.segments.length || drawn?.region.length);
  const words = () => {
    if (!isThere) return `nothing yet: START 0,0 then ${byFigures(job.unit, firstLines)}`;
    if (!wire?.freedom) return "fully located, in ink";
    const named = wire.free.slice(0, NAMED).join("; ");
    return `${wire.freedom} free, in pencil: ${named}${wire.free.length > NAMED ? " …" : ""}`;
  };
  // What is being typed is drawn already, and is no line of the outline yet.
  const lineWords = (i: number) =>
    outline.items[i] ? writeOutlineItem(outline.items[i], names) : "the line that is being typed";
  return (
    <p className={css.state} data-testid="outline-state">
      {wire?.conflicts.length
        ? wire.conflicts.map((c) => (
            <span className="red" key={c.words}>
              ✗ {conflictWords(c)}
              {c.drop.length > 0 && `; drop ${c.drop.map(lineWords).join(" or ")}`}
            </span>
          ))
        : words()}
    </p>
  );
}

const isStep = (i: OutlineItem) => i.item === "line" || i.item === "arc";

/** Every line, a step with its number. */
function Lines({ open }: { open: OpenOutline }) {
  const { items } = open.outline;
  const steps = items.map((it, i) => (isStep(it) ? String(items.slice(0, i + 1).filter(isStep).length) : ""));
  return (
    <ol className={css.lines} aria-label="Lines of the outline">
      {items.map((it, i) => (
        <ItemLine key={`${i}:${JSON.stringify(it)}`} open={open} index={i} label={steps[i]} />
      ))}
    </ol>
  );
}
