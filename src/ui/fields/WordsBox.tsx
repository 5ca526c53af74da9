"use client";
import { AimOutlined, DownOutlined } from "@ant-design/icons";
import { Button, Dropdown, Input } from "antd";
import { useId } from "react";
import type { Result } from "@/core/base/result";
import box from "../common/NumberBox.module.css";
import { useDraft } from "./useDraft";

interface Props<T> {
  label: string;
  value: string;
  read: (text: string) => Result<T>;
  commit: (value: T) => void;
  /** What may stand there, offered in a list. */
  options?: string[];
  placeholder?: string;
  /** Takes it from the stage. */
  pick?: { label: string; on: boolean; start: () => void };
  wide?: boolean;
}

/** A piece of a row in the card's own words: typed or chosen, its fault said at the field. */
export function WordsBox<T>({ label, value, read, commit, options = [], placeholder, pick, wide }: Props<T>) {
  const id = useId();
  const take = (text: string) => {
    const r = read(text);
    if (r.ok) commit(r.value);
  };
  const problemOf = (text: string) => {
    const r = read(text);
    return r.ok ? null : `${r.problems[0].message}: ${r.problems[0].expected ?? ""}`;
  };
  const { wrong, drop, bind } = useDraft(value, take, { problem: problemOf });
  const choose = (option: string) => {
    drop();
    take(option);
  };
  return (
    <div className={box.field} style={wide ? { gridColumn: "1 / -1" } : undefined}>
      <label htmlFor={id}>{label}</label>
      <div style={{ display: "flex", gap: 4 }}>
        <Input
          id={id}
          size="small"
          spellCheck={false}
          autoComplete="off"
          maxLength={200}
          placeholder={placeholder}
          aria-invalid={wrong !== null}
          status={wrong === null ? "" : "error"}
          {...bind}
        />
        {options.length > 0 && <Options label={label} options={options} choose={choose} />}
        {pick && (
          <Button
            size="small"
            style={{ flex: "none" }}
            onClick={pick.start}
            aria-pressed={pick.on}
            title={pick.label}
            aria-label={pick.label}
            icon={<AimOutlined />}
            type={pick.on ? "primary" : "default"}
          />
        )}
      </div>
      {wrong !== null && <small className="red">{wrong}</small>}
    </div>
  );
}

interface OptionsProps {
  label: string;
  options: string[];
  choose: (option: string) => void;
}

function Options({ label, options, choose }: OptionsProps) {
  const items = options.map((o) => ({ key: o, label: o, onClick: () => choose(o) }));
  return (
    <Dropdown trigger={["click"]} menu={{ items, style: { maxHeight: 320, overflowY: "auto" } }}>
      <Button
        size="small"
        style={{ flex: "none" }}
        icon={<DownOutlined />}
        aria-label={`choices: ${label.toLowerCase()}`}
        title="what it may be"
      />
    </Dropdown>
  );
}
