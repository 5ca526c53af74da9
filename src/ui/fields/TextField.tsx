"use client";
import { Input, type InputProps } from "antd";
import { useDraft } from "./useDraft";

interface Props extends Omit<InputProps, "value" | "onChange" | "onBlur" | "onKeyDown" | "defaultValue"> {
  value: string;
  commit: (text: string) => void;
  problem?: (text: string) => string | null;
  typing?: (text: string | null) => void;
}

/** A line of text that is taken when it is left or Enter is pressed. */
export function TextField({ value, commit, problem, typing, ...rest }: Props) {
  const { wrong, bind } = useDraft(value, commit, { problem, typing });
  return (
    <Input
      size="small"
      autoComplete="off"
      {...rest}
      {...bind}
      aria-invalid={rest["aria-invalid"] || wrong !== null}
      status={rest.status ?? (wrong === null ? "" : "error")}
    />
  );
}
