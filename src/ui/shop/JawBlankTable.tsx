"use client";
import { Button, type TableProps } from "antd";
import { lengthText, unitOf, type Figures } from "@/core/number";
import { jawBlanks, jawBlankSchema, readFigure, type JawBlank } from "@/core/tables";
import { Bare } from "../fields/Bare";
import { RuledTable } from "../fields/RuledTable";
import { TextField } from "../fields/TextField";
import css from "./ShopPage.module.css";

type Sized = "length" | "height" | "thickness" | "screwPitch" | "screw";
const columnsSized: [Sized, string][] = [
  ["length", "length"],
  ["height", "height"],
  ["thickness", "thickness"],
  ["screwPitch", "screws apart"],
  ["screw", "screw ⌀"],
];

interface Props {
  /** The shop's own; null for the usual ones. */
  own: JawBlank[] | null;
  figures: Figures;
  put: (blanks: JawBlank[] | null) => void;
}
interface Line {
  blank: JawBlank;
  /** Where it stands among all. */
  at: number;
}

const mmOf = (text: string, figures: Figures): number | null => {
  const read = readFigure({ text, unit: figures }, { is: "length" });
  return read.ok ? read.value : null;
};

/** Why a blank would be none with one of its sizes otherwise. */
function whyNot(blank: JawBlank, key: Sized, text: string, figures: Figures): string | null {
  const mm = mmOf(text, figures);
  if (mm === null) return "this is no size, a number over 0";
  const read = jawBlankSchema.safeParse({ ...blank, [key]: mm });
  return read.success ? null : read.error.issues[0].message;
}

const isTaken = (all: JawBlank[], figures: Figures, name: string, at: number): boolean =>
  all.some((b, k) => k !== at && b.unit === figures && b.name.toLowerCase() === name.trim().toLowerCase());

const wrongName = (all: JawBlank[], figures: Figures, name: string, at: number): string | null => {
  if (!name.trim()) return "a name is wanted";
  return isTaken(all, figures, name, at) ? "this name is there already" : null;
};

function columnsOf(all: JawBlank[], figures: Figures, put: Props["put"]): TableProps<Line>["columns"] {
  const change = (at: number, by: Partial<JawBlank>) => put(all.map((b, k) => (k === at ? { ...b, ...by } : b)));
  const name = ({ blank, at }: Line) => (
    <TextField
      aria-label={`Name of ${blank.name}`}
      value={blank.name}
      maxLength={60}
      tells
      problem={(typed) => wrongName(all, figures, typed, at)}
      commit={(typed) => change(at, { name: typed })}
    />
  );
  const sized = (key: Sized, title: string) => ({
    title,
    width: 84,
    render: (_: unknown, { blank, at }: Line) => (
      <TextField
        aria-label={`${title} of ${blank.name}`}
        tells
        value={lengthText(blank[key], figures, unitOf[figures].places.fine)}
        problem={(typed) => whyNot(blank, key, typed, figures)}
        commit={(typed) => change(at, { [key]: mmOf(typed, figures) ?? blank[key] })}
      />
    ),
  });
  const off = ({ blank, at }: Line) =>
    all.length > 1 && (
      <Bare className="faint" aria-label={`Take ${blank.name} off`} onClick={() => put(all.toSpliced(at, 1))}>
        ×
      </Bare>
    );
  return [
    { title: "name", render: (_, line) => name(line) },
    ...columnsSized.map(([key, title]) => sized(key, title)),
    { title: "", width: 34, render: (_, line) => off(line) },
  ];
}

/** The blanks soft jaws are cut from. */
export function JawBlankTable({ own, figures, put }: Props) {
  const all = own ?? [...jawBlanks.rows];
  const lines = all.flatMap((blank, at): Line[] => (blank.unit === figures ? [{ blank, at }] : []));
  const more = () => {
    const like = lines[lines.length - 1]?.blank ?? jawBlanks.rows.find((b) => b.unit === figures)!;
    const name = (n: number): string => (isTaken(all, figures, `blank ${n}`, -1) ? name(n + 1) : `blank ${n}`);
    put([...all, { ...like, name: name(lines.length + 1) }]);
  };
  return (
    <>
      <RuledTable label="Jaw blanks" columns={columnsOf(all, figures, put)} dataSource={lines} rowKey="at" />
      <p className={css.under}>
        <Button size="small" onClick={more}>
          one more blank
        </Button>
        {own ? (
          <Button size="small" onClick={() => put(null)}>
            the usual ones
          </Button>
        ) : (
          <span className="soft">{jawBlanks.source}</span>
        )}
      </p>
    </>
  );
}
