"use client";
import { Button, Input, type InputRef } from "antd";
import { useEffect, useRef, useState, type FormEvent, type SetStateAction } from "react";
import { readOutlineLine } from "@/core/callout";
import { type LengthUnit, byFigures } from "@/core/number";
import { outlineForms } from "@/core/outline/items";
import { Choice } from "../fields/Choice";
import { useBench } from "../store/benchStore";
import css from "./Outline.module.css";
import type { OpenOutline } from "./useOutline";

const formsIn = (unit: LengthUnit) =>
  outlineForms(unit).map((g) => ({
    label: g.group,
    options: g.lines.map((l) => ({ value: l.text, label: `${l.text}${l.what && ` — ${l.what}`}` })),
  }));

/** What stands in the empty line, in figures of the job's unit. */
const firstLine = "START 0,0";
const nextLine = { in: "LINE TO Y 1.25", mm: "LINE TO Y 30" };

/** The next line of the outline; the picture follows it while it is typed. */
export function Entry({ open }: { open: OpenOutline }) {
  const { outline, names, named, put, typing, problem } = open;
  const [line, setLine] = useState("");
  const entry = useRef<InputRef>(null);
  const isFirst = outline.items.length === 0;
  const read = line.trim() ? readOutlineLine(line, names, named, isFirst) : null;
  const take = (next: SetStateAction<string>) => {
    setLine(next);
    entry.current?.focus();
  };
  useEffect(() => {
    entry.current?.focus();
  }, []);
  useSpot(!isFirst, take);
  useEffect(() => {
    typing(read?.ok ? [...outline.items, read.item] : null);
    return () => typing(null);
  }, [line, outline]);
  const add = (e: FormEvent) => {
    e.preventDefault();
    if (!read?.ok) return;
    put([...outline.items, read.item]);
    setLine("");
  };
  return (
    <>
      <form className={`${css.entry} ${read && !read.ok ? css.bad : ""}`} onSubmit={add}>
        <Input
          variant="borderless"
          ref={entry}
          aria-label="Next line of the outline"
          value={line}
          onChange={(ev) => setLine(ev.target.value)}
          placeholder={isFirst ? firstLine : byFigures(open.job.unit, nextLine)}
          spellCheck={false}
          autoComplete="off"
          maxLength={400}
        />
        <Button htmlType="submit" size="small" disabled={!read?.ok}>
          add
        </Button>
      </form>
      <p className={css.says}>
        <EntrySays problem={problem} read={read} unit={open.job.unit} start={take} />
      </p>
    </>
  );
}

interface SaysProps {
  problem: string;
  read: ReturnType<typeof readOutlineLine> | null;
  unit: LengthUnit;
  start: (text: string) => void;
}

/** Under the line: why the last one was not taken, how to begin, or how the one being typed stands. */
function EntrySays({ problem, read, unit, start }: SaysProps) {
  if (problem) return <span className="red">{problem}</span>;
  if (!read)
    return (
      <Choice
        label="Lines to start from"
        placeholder="type a line, pick a place on the stage, or start from an example …"
        value={null}
        choose={start}
        options={formsIn(unit)}
      />
    );
  if (read.ok) return "Enter adds it";
  const { column, message, expected } = read.error;
  return <span className="red">{`at character ${column}: ${message}; expected: ${expected}`}</span>;
}

/** A place picked on the stage goes into the line: as a new step, or where a place is being typed. */
function useSpot(hasLines: boolean, take: (change: (line: string) => string) => void): void {
  const spot = useBench((s) => s.outlineSpot);
  const set = useBench((s) => s.set);
  useEffect(() => {
    if (!spot) return;
    take((l) =>
      l.trim() === ""
        ? `${hasLines ? "LINE TO" : "START"} ${spot.text}`
        : `${l.replace(/\s*-?[\d.]+,-?[\d.]+\s*$/, "").trimEnd()} ${spot.text}`,
    );
    set({ outlineSpot: null });
  }, [spot]);
}
