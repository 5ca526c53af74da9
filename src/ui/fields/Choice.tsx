"use client";
import { Select, type SelectProps } from "antd";

interface Option {
  value: string;
  label: string;
}
interface Props extends Pick<SelectProps, "className" | "id" | "placeholder" | "disabled" | "style"> {
  /** What is chosen, in words for those who do not see it; leave out where a label stands by. */
  label?: string;
  /** Null where nothing is chosen: the placeholder shows. */
  value: string | null;
  options: (Option | { label: string; options: Option[] })[];
  choose: (value: string) => void;
}

/** One of several. */
export function Choice({ label, value, options, choose, ...rest }: Props) {
  return (
    <Select
      size="small"
      popupMatchSelectWidth={false}
      aria-label={label}
      value={value}
      options={options}
      onChange={(v: string | null) => v !== null && choose(v)}
      {...rest}
    />
  );
}

/** Options that are shown as they are written. */
export const asWritten = (values: readonly string[]): Option[] => values.map((value) => ({ value, label: value }));
