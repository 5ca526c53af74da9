"use client";
import { Alert, Button, Checkbox, Input, Modal, Select, Spin } from "antd";
import { useState } from "react";
import { useJob } from "../store/jobStore";
import { showLength, type LengthUnit, unitOf, byFigures } from "@/core/number";
import { MOST_OUTLINES } from "@/core/job";
import { outlinesOfChains, type ReadChain, type ReadFile } from "@/io/chainItems";
import type { OutlineItem } from "@/core/outline/items";
import { useDrawing } from "../drawing/useDrawing";
import css from "./Outline.module.css";

interface Props {
  drawing: { name: string; text: string };
  bring: (outlines: { name: string; items: OutlineItem[] }[]) => void;
  cancel: () => void;
}
type Taken = "said" | LengthUnit;

const plural = (n: number, one: string) => `${n} ${one}${n === 1 ? "" : "s"}`;

/**
 * What a drawing file holds, before it is brought in: its unit, its layers, its open chains and gaps, and what is
 * left out.
 */
export function DrawingDialog({ drawing, bring, cancel }: Props) {
  const unit = useJob((s) => s.job!.unit);
  const there = useJob((s) => s.job!.outlines.length);
  const [taken, setTaken] = useState<Taken>("said");
  const [off, setOff] = useState<string[]>([]);
  const [mend, setMend] = useState("");
  const reading = useDrawing(drawing, unit, taken === "said" ? undefined : taken);
  const file = reading.state === "read" ? reading.file : null;
  const chosen = file?.chains.filter((c) => !off.includes(c.layer)) ?? [];
  const wrongGap = mend.trim() !== "" && !(Number(mend) > 0);
  const room = MOST_OUTLINES - there;
  return (
    <Modal
      open
      title={`Chains of ${drawing.name}`}
      onCancel={cancel}
      okText={`bring in ${plural(chosen.length, "outline")}`}
      okButtonProps={{ disabled: !chosen.length || chosen.length > room || wrongGap }}
      onOk={() => bring(outlinesOfChains(chosen, mend.trim()))}
      width={560}
    >
      <div className={css.drawing}>
        {reading.state === "reading" && (
          <p>
            <Spin size="small" /> reading the drawing …{" "}
            <Button size="small" onClick={reading.stop}>
              stop
            </Button>
          </p>
        )}
        {reading.state === "failed" && <Alert type="error" showIcon title={reading.problem} />}
        {file && (
          <>
            {!/\.svg$/i.test(drawing.name) && <UnitChoice file={file} unit={unit} taken={taken} choose={setTaken} />}
            <Layers file={file} off={off} setOff={setOff} />
            <Chosen chosen={chosen} unit={unit} mend={mend} setMend={setMend} wrongGap={wrongGap} />
            {chosen.length > room && (
              <Alert
                type="warning"
                showIcon
                title={`${plural(chosen.length, "chain")}: a job holds at most ${MOST_OUTLINES} outlines. Choose fewer layers.`}
              />
            )}
            {file.problems
              .filter((p) => !/a chain is open|chains are open/.test(p))
              .slice(0, 30)
              .map((p) => (
                <p key={p} className="red">
                  {p}
                </p>
              ))}
          </>
        )}
      </div>
    </Modal>
  );
}

function UnitChoice({
  file,
  unit,
  taken,
  choose,
}: {
  file: ReadFile;
  unit: LengthUnit;
  taken: Taken;
  choose: (t: Taken) => void;
}) {
  const asSaid =
    file.said === "other"
      ? "as the file says"
      : file.said
        ? `${file.said}, as the file says`
        : `${unit}, like the job: the file says nothing`;
  const options = [
    { value: "said", label: asSaid },
    { value: "mm", label: "millimetres" },
    { value: "in", label: "inches" },
  ];
  return (
    <label>
      Numbers of the drawing are{" "}
      <Select<Taken>
        size="small"
        popupMatchSelectWidth={false}
        aria-label="Unit of the drawing"
        value={taken}
        options={options as { value: Taken; label: string }[]}
        onChange={choose}
      />
    </label>
  );
}

function Layers({ file, off, setOff }: { file: ReadFile; off: string[]; setOff: (off: string[]) => void }) {
  if (!file.layers.length) return null;
  const chains = (layer: string) => file.chains.filter((c) => c.layer === layer).length;
  return (
    <fieldset>
      <legend>Layers</legend>
      {file.layers.map((l) => (
        <Checkbox
          key={l.name}
          checked={!off.includes(l.name)}
          onChange={(e) => setOff(e.target.checked ? off.filter((x) => x !== l.name) : [...off, l.name])}
        >
          {l.name === "0" || l.name === "" ? "without a name" : l.name}{" "}
          <small>
            {plural(l.elements, "element")}, {plural(chains(l.name), "chain")}
          </small>
        </Checkbox>
      ))}
    </fieldset>
  );
}

interface ChosenProps {
  chosen: ReadChain[];
  unit: LengthUnit;
  mend: string;
  setMend: (m: string) => void;
  wrongGap: boolean;
}

/** What comes in as it is chosen now: how many chains, how long, and which of them are open. */
function Chosen({ chosen, unit, ...closing }: ChosenProps) {
  if (!chosen.length) return null;
  const open = chosen.filter((c) => !c.closed);
  const whole = lengthIn(
    unit,
    chosen.reduce((sum, c) => sum + c.length, 0),
  );
  return (
    <>
      <p>{`${chosen.length - open.length} closed, ${open.length} open; ${whole} ${unit} in all.`}</p>
      {open.length > 0 && <OpenChains open={open} unit={unit} />}
      {open.length > 0 && <CloseGaps open={open} unit={unit} {...closing} />}
    </>
  );
}

const lengthIn = (unit: LengthUnit, mm: number) => showLength(mm, unit, unitOf[unit].places.exact);

/** Open chains that are named one by one. */
const NAMED = 8;

function OpenChains({ open, unit }: { open: ReadChain[]; unit: LengthUnit }) {
  const place = ({ x, y }: { x: number; y: number }) => (
    <span className="num">{`${lengthIn(unit, x)}, ${lengthIn(unit, y)}`}</span>
  );
  return (
    <ul aria-label="Open chains">
      {open.slice(0, NAMED).map((c, i) => (
        <li key={i}>
          {c.layer}: open from {place(c.gap!.from)} to {place(c.gap!.to)},{" "}
          {`${lengthIn(unit, c.gap!.width)} ${unit} apart`}
        </li>
      ))}
      {open.length > NAMED && <li>… {open.length - NAMED} more</li>}
    </ul>
  );
}

/** Asks up to which width gaps are closed. */
function CloseGaps({ open, unit, mend, setMend, wrongGap }: Omit<ChosenProps, "chosen"> & { open: ReadChain[] }) {
  const gap = Number(mend);
  const closable = open.filter((c) => gap > 0 && c.gap!.width <= gap * unitOf[unit].mm).length;
  return (
    <label>
      Close gaps up to{" "}
      <Input
        size="small"
        className="num"
        style={{ width: 90 }}
        aria-label="Close gaps up to"
        value={mend}
        maxLength={12}
        placeholder="none"
        status={wrongGap ? "error" : undefined}
        onChange={(e) => setMend(e.target.value)}
      />{" "}
      {unit} {wrongGap && <small className="red">a width such as {byFigures(unit, { in: ".002", mm: ".05" })}</small>}
      {!wrongGap && closable > 0 && <small>closes {closable}</small>}
    </label>
  );
}
