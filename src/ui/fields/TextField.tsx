"use client";
import { Input, type InputProps } from "antd";
import { useDraft } from "./useDraft";

interface Props extends Omit<InputProps, "value" | "onChange" | "onBlur" | "onKeyDown" | "defaultValue"> {
  value: string;
  commit: (text: string) => void;
  problem?: (text: string) => string | null;
  typing?: (text: string | null) => void;
  /** Whether what is wrong stands under the field in words. */
  tells?: boolean;
}

/** A line of text that is taken when it is left or Enter is pressed. */
export function TextField({ value, commit, problem, typing, tells, ...rest }: Props) {
  const { wrong, bind } = useDraft(value, commit, { problem, typing });
  const input = (
    <Input
      size="small"
      autoComplete="off"
      {...rest}
      {...bind}
      aria-invalid={rest["aria-invalid"] || wrong !== null}
      status={rest.status ?? (wrong === null ? "" : "error")}
    />
  );
  if (!tells) return input;
  return (
    <>
      {input}
      {wrong !== null && (
        <span className="red" role="alert" style={{ display: "block", fontSize: 12 }}>
          {wrong}
        </span>
      )}
    </>
  );
}
