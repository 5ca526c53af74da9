"use client";
import { Button, Input, type InputRef } from "antd";
import { useEffect, useRef, useState } from "react";
import { readOutlineLine } from "@/core/callout";
import type { LengthUnit } from "@/core/number";
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

/** The next line of the outline; the picture follows it while it is typed. */
export function Entry({ open }: { open: OpenOutline }) {
  const { outline, names, named, put, typing, problem } = open;
  const [line, setLine] = useState("");
  const entry = useRef<InputRef>(null);
  const read = line.trim() ? readOutlineLine(line, names, named, outline.items.length === 0) : null;
  useEffect(() => {
    entry.current?.focus();
  }, []);
  useSpot(outline.items.length > 0, (change) => {
    setLine(change);
    entry.current?.focus();
  });
  useEffect(() => {
    typing(read?.ok ? [...outline.items, read.item] : null);
    return () => typing(null);
  }, [line, outline]);
  const add = () => {
    if (!read?.ok) return;
    put([...outline.items, read.item]);
    setLine("");
  };
  return (
    <>
      <form
        className={`${css.entry} ${read && !read.ok ? css.bad : ""}`}
        onSubmit={(ev) => {
          ev.preventDefault();
          add();
        }}
      >
        <Input
          variant="borderless"
          ref={entry}
          aria-label="Next line of the outline"
          value={line}
          onChange={(ev) => setLine(ev.target.value)}
          placeholder={outline.items.length ? { in: "LINE TO Y 1.25", mm: "LINE TO Y 30" }[open.job.unit] : "START 0,0"}
          spellCheck={false}
          autoComplete="off"
          maxLength={400}
        />
        <Button htmlType="submit" size="small" disabled={!read?.ok}>
          add
        </Button>
      </form>
      <p className={css.says}>
        {problem && <span className="red">{problem}</span>}
        {!problem && !read && (
          <Choice
            label="Lines to start from"
            placeholder="type a line, pick a place on the stage, or start from an example …"
            value={null}
            choose={(text) => {
              setLine(text);
              entry.current?.focus();
            }}
            options={formsIn(open.job.unit)}
          />
        )}
        {!problem && read?.ok && "Enter adds it"}
        {!problem && read && !read.ok && (
          <span className="red">
            at character {read.error.column}: {read.error.message}; expected: {read.error.expected}
          </span>
        )}
      </p>
    </>
  );
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
