"use client";
import { Input } from "antd";
import { useDraft } from "../fields/useDraft";

/** A tolerance zone such as H7; wrong text stays as it was typed and says what is wrong. */
export function FitBox({ value, commit }: { value: string; commit: (fit: string) => void }) {
  const isFit = (text: string) => /^(?:[A-Z]{1,2}|[a-z]{1,2})(?:01|1[0-8]|[0-9])$/.test(text.trim());
  const { shown, bind } = useDraft(value, commit, { problem: (text) => (isFit(text) ? null : "no fit") });
  const good = isFit(shown);
  return (
    <div>
      <label>
        <span className="lab">Fit</span>
        <Input
          size="small"
          maxLength={4}
          spellCheck={false}
          aria-invalid={!good}
          status={good ? "" : "error"}
          {...bind}
        />
      </label>
      <small className={good ? undefined : "red"}>
        {good ? (/^[A-Z]/.test(shown) ? "a hole" : "a shaft") : "as H7 or g6"}
      </small>
    </div>
  );
}
