"use client";
import { useId } from "react";
import { Choice } from "./Choice";
import box from "../common/NumberBox.module.css";

/** One of a few, under its label. */
export function ChoiceBox<T extends { value: string; label: string }>({
  label,
  value,
  options,
  choose,
}: {
  label: string;
  value: string;
  options: T[];
  choose: (o: T) => void;
}) {
  const id = useId();
  return (
    <div className={box.field}>
      <label htmlFor={id}>{label}</label>
      <Choice
        id={id}
        value={value}
        choose={(v) => choose(options.find((o) => o.value === v)!)}
        options={options.map((o) => ({ value: o.value, label: o.label }))}
      />
    </div>
  );
}
