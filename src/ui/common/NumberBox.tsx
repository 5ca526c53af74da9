"use client";
import { Input } from "antd";
import { useId, type DragEvent, type KeyboardEvent } from "react";
import type { Job } from "@/core/job";
import { toNumberText, type NumberText } from "@/core/number";
import { useDraft } from "../fields/useDraft";
import { rememberField } from "./lastField";
import { offersFor, type Offer } from "./numberOffers";
import { numberState, type NumberField } from "./numberState";
import { SourceLine } from "./SourceLine";
import { useOffers } from "./useOffers";
import css from "./NumberBox.module.css";

interface Props extends Omit<NumberField, "shown"> {
  job: Job;
  label: string;
  value: NumberText | undefined;
  commit: (text: NumberText | undefined) => void;
  autoFocus?: boolean;
  /** What an empty optional number means, where it is not none. */
  blank?: string;
}

/**
 * A number: the text as typed, its value, and where it comes from. Wrong text stays as it was typed and says what is
 * wrong.
 */
export function NumberBox({ job, label, value, commit, autoFocus, blank, ...field }: Props) {
  const id = useId();
  const nothing = field.optional ? undefined : toNumberText("?");
  const text = useDraft(value === undefined || value === "?" ? "" : value, (typed) =>
    commit(typed === "" ? nothing : toNumberText(typed)),
  );
  const { source, question, after } = numberState({ ...field, shown: text.shown }, job);
  const offers = text.drafting ? offersFor(text.shown, job, field.quantity) : [];
  const list = useOffers(offers, text.shown, (o) => text.type(o.whole));
  const onKeyDown = (e: KeyboardEvent<HTMLInputElement>) => {
    if (!list.onKey(e)) text.bind.onKeyDown(e);
  };
  const onDrop = (e: DragEvent) => {
    const dropped = e.dataTransfer.getData("text/plain").trim();
    if (!dropped) return;
    e.preventDefault();
    text.drop();
    commit(toNumberText(dropped));
  };
  const tone = [question && css.question, source.kind === "problem" && css.wrong].filter(Boolean).join(" ");
  return (
    <div className={css.field}>
      <label htmlFor={id}>{label}</label>
      <div className={`${css.box} ${tone}`}>
        <Input
          {...listed(id, offers.length > 0)}
          {...text.bind}
          variant="borderless"
          size="small"
          data-draft={text.drafting ? "yes" : "no"}
          autoFocus={autoFocus}
          aria-invalid={source.kind === "problem"}
          onChange={(e) => (list.restart(), text.bind.onChange(e))}
          onFocus={() => rememberField((put) => commit(toNumberText(put)))}
          onDragOver={(e) => e.dataTransfer.types.includes("text/plain") && e.preventDefault()}
          onDrop={onDrop}
          onKeyDown={onKeyDown}
        />
        <i>{after}</i>
      </div>
      {offers.length > 0 && <OfferList id={id} offers={offers} at={list.at} take={list.take} />}
      <small id={`${id}-s`} className={question ? "red" : undefined}>
        <SourceLine {...{ job, commit, blank }} state={source} quantity={field.quantity} shown={text.shown} />
      </small>
    </div>
  );
}

/** What makes a text field one with a list under it. */
const listed = (id: string, open: boolean) => ({
  id,
  spellCheck: false,
  autoComplete: "off",
  maxLength: 200,
  role: "combobox",
  "aria-describedby": `${id}-s`,
  "aria-expanded": open,
  "aria-controls": `${id}-o`,
  "aria-autocomplete": "list" as const,
});

function OfferList({ id, offers, at, take }: { id: string; offers: Offer[]; at: number; take: (o: Offer) => void }) {
  const choose = (o: Offer) => (e: { preventDefault(): void }) => {
    // The field keeps the keyboard.
    e.preventDefault();
    take(o);
  };
  return (
    <ul id={`${id}-o`} role="listbox" className={css.offers} aria-label="balloons and named values">
      {offers.map((o, i) => (
        <li key={o.whole} role="option" aria-selected={i === at} onMouseDown={choose(o)}>
          <b>{o.short}</b> {o.text}
        </li>
      ))}
    </ul>
  );
}
