"use client";
import { Button, Input } from "antd";
import { readOutlineLine, writeOutlineItem } from "@/core/callout";
import type { OutlineItem } from "@/core/outline/items";
import { Bare } from "../fields/Bare";
import { useDraft } from "../fields/useDraft";
import css from "./Outline.module.css";
import type { OpenOutline } from "./useOutline";

/** One line of the outline; wrong text stays as it was typed. */
export function ItemLine({ open, index, label }: { open: OpenOutline; index: number; label: string }) {
  const { names, named, drawn, put, typing } = open;
  const { items } = open.outline;
  const text = writeOutlineItem(items[index], names);
  const conflicts = drawn?.wire?.conflicts ?? [];
  const clash = conflicts.some((c) => c.items.includes(index));
  const readLine = (line: string) => readOutlineLine(line, names, named);
  const withItem = (item: OutlineItem) => items.map((x, k) => (k === index ? item : x));
  const { shown, drafting, bind } = useDraft(
    text,
    (line) => {
      const r = readLine(line);
      if (r.ok) put(withItem(r.item));
    },
    {
      problem: (line) => (readLine(line).ok ? null : "no line of an outline"),
      typing: (line) => {
        const r = line === null ? null : readLine(line);
        typing(r?.ok ? withItem(r.item) : null);
      },
    },
  );
  const read = drafting ? readLine(shown) : null;
  const remark = remarkOf(open, index, read);
  const remove = () =>
    put(
      items.filter((_, k) => k !== index),
      "drop",
    );
  const drop = { "aria-label": `drop line ${label || text}`, onClick: remove };
  return (
    <li className={clash ? css.clash : undefined} data-clash={clash}>
      <b>{label}</b>
      <Input
        variant="borderless"
        size="small"
        spellCheck={false}
        maxLength={400}
        aria-label={`line ${label || text}`}
        aria-invalid={remark?.red ?? false}
        {...bind}
      />
      {conflicts.some((c) => c.drop.includes(index)) ? (
        <Button size="small" {...drop}>
          drop
        </Button>
      ) : (
        <Bare className="faint" {...drop}>
          ×
        </Bare>
      )}
      {remark && <small className={remark.red ? "red" : undefined}>{remark.text}</small>}
    </li>
  );
}

/** What is to be said of a line: that it cannot be read, what is wrong with it, or that it says nothing new. */
function remarkOf(
  { drawn }: OpenOutline,
  index: number,
  read: ReturnType<typeof readOutlineLine> | null,
): { text: string; red: boolean } | null {
  if (read && !read.ok) {
    const { column, message, expected } = read.error;
    return { text: `at character ${column}: ${message}; expected: ${expected}`, red: true };
  }
  const said = drawn?.problems.find((p) => p.item === index);
  if (said) return { text: said.message + (said.expected ? `; expected: ${said.expected}` : ""), red: true };
  return drawn?.wire?.redundant.includes(index) ? { text: "says again what the others say", red: false } : null;
}
