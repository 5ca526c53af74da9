"use client";
import type { TableProps } from "antd";
import { lengthText, unitOf, type Figures } from "@/core/number";
import { readFigure, type FigureKind, type ShopFigure } from "@/core/tables";
import { Bare } from "../fields/Bare";
import { RuledTable } from "../fields/RuledTable";
import { TextField } from "../fields/TextField";
import css from "./ShopPage.module.css";

/** A figure that a shop may set: what it is, as it usually is (mm, mm², a share), and as the shop has set it. */
export interface FigureLine {
  key: string;
  title: string;
  is: FigureKind;
  orNone?: true;
  /** What stands behind it: `× drill diameter`. */
  unit: string;
  /** Where the usual figure is from; empty where that is said of all of them. */
  source: string;
  usual: number;
  set: ShopFigure | undefined;
}

interface Props {
  label: string;
  lines: FigureLine[];
  figures: Figures;
  put: (key: string, figure: ShopFigure | undefined) => void;
  /** Why a figure cannot stand beside the others, or null. */
  refused?: (key: string, figure: ShopFigure) => string | null;
}

/** A value in the unit that is looked at. */
function shown(value: number, is: FigureKind, figures: Figures): string {
  if (is === "length") return lengthText(value, figures, unitOf[figures].places.fine);
  const inUnit = is === "area" ? value / unitOf[figures].mm ** 2 : value;
  return String(Number(inUnit.toPrecision(6)));
}

/** What a line's field says: as it was typed, where it was typed in the unit that is looked at. */
function textOf({ set, is, usual, orNone }: FigureLine, figures: Figures): string {
  if (!set) return shown(usual, is, figures);
  if (set.unit === figures || is === "share") return set.text;
  const read = readFigure(set, { is, orNone });
  return read.ok ? shown(read.value, is, figures) : set.text;
}

const unitWords = ({ is, unit }: FigureLine, figures: Figures): string => {
  const own = { length: figures, area: unitOf[figures].area.name, share: "" }[is];
  return [own, unit].filter(Boolean).join(" ");
};

/** Figures of the shop, each with what it usually is and where that is from. */
export function FigureTable({ label, lines, figures, put, refused }: Props) {
  const hasSources = lines.some((l) => l.source);
  const field = (line: FigureLine) => (
    <TextField
      className={line.set ? css.own : undefined}
      aria-label={line.title}
      value={textOf(line, figures)}
      maxLength={60}
      tells
      problem={(text) => {
        const read = text.trim() ? readFigure({ text, unit: figures }, line) : null;
        if (!read?.ok) return read ? read.problems[0].message : null;
        return refused?.(line.key, { text: text.trim(), unit: figures }) ?? null;
      }}
      commit={(text) => put(line.key, text ? { text, unit: figures } : undefined)}
    />
  );
  const columns: TableProps<FigureLine>["columns"] = [
    { title: "figure", dataIndex: "title" },
    { title: "value", width: 92, render: (_, line) => field(line) },
    {
      title: "",
      width: hasSources ? 128 : 48,
      render: (_, line) => <span className="soft">{unitWords(line, figures)}</span>,
    },
    {
      title: "usually",
      width: hasSources ? 168 : 84,
      render: (_, line) =>
        line.set ? (
          <Bare aria-label={`${line.title} as it usually is`} onClick={() => put(line.key, undefined)}>
            back to {shown(line.usual, line.is, figures)}
          </Bare>
        ) : (
          hasSources && <span className="soft">{line.source}</span>
        ),
    },
  ];
  return <RuledTable label={label} columns={columns} dataSource={lines} rowKey="key" />;
}
