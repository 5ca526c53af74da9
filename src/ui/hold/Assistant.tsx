"use client";
import { App, Button, Modal } from "antd";
import { useState } from "react";
import { numberScope } from "@/core/engine/numbers";
import type { Job, JobDocument, Setup } from "@/core/job";
import { evaluateNumber, type NumberText } from "@/core/number";
import type { FixtureKind, FixtureWishes } from "@/core/setups";
import { clampThreads, jawBlanks } from "@/core/tables";
import { NumberBox } from "../common/NumberBox";
import { ChoiceBox } from "../card/editors";
import { freshId } from "../bench/actions";
import { engine } from "../engine/engine";
import { useJob } from "../store/jobStore";
import { useSetups } from "../store/setupsStore";
import css from "./HoldCard.module.css";
import { setupsProposed } from "./setupEdits";

type Asked = "grip" | "clearance" | "relief" | "spacer" | "pitchX" | "pitchY";
const titles: Record<FixtureKind, string> = {
  jaws: "Soft jaws",
  plate: "Fixture plate",
  chuck: "Bored chuck jaws",
};
const asks: Record<FixtureKind, Asked[]> = {
  jaws: ["grip", "clearance", "spacer", "relief"],
  plate: ["grip", "clearance", "relief", "pitchX", "pitchY"],
  chuck: ["grip", "clearance", "spacer"],
};
const labels: Record<Asked, string> = {
  grip: "Grip, nest depth",
  clearance: "Clearance a side",
  relief: "Relief ⌀",
  spacer: "Spacer, gap",
  pitchX: "Pitch along x",
  pitchY: "Pitch along y",
};
const placements = [
  { value: "corner" as const, label: "on the corner" },
  { value: "wall" as const, label: "along a wall" },
  { value: "bisector" as const, label: "on the bisector" },
];
const counts = ["1", "2", "3", "4", "5", "6"].map((value) => ({ value, label: value }));

/** Asks what an assistant needs; what is left empty it proposes itself. What it writes is a part of ordinary rows. */
export function Assistant({
  kind,
  setup,
  document,
  job,
  done,
}: {
  kind: FixtureKind;
  setup: Setup;
  document: JobDocument;
  job: Job;
  done: () => void;
}) {
  const { message } = App.useApp();
  const [typed, setTyped] = useState<Partial<Record<Asked, NumberText>>>({});
  const [placement, setPlacement] = useState<"corner" | "wall" | "bisector">("corner");
  const [blank, setBlank] = useState("");
  const [stations, setStations] = useState({ x: "1", y: "1" });
  const [isSerial, setSerial] = useState(false);
  const [clamps, setClamps] = useState("");
  const [busy, setBusy] = useState(false);
  const blanks = jawBlanks.rows.filter((b) => b.unit === job.unit).map((b) => ({ value: b.name, label: b.name }));
  const value = (key: Asked): number | undefined => {
    const text = typed[key];
    const r = text === undefined ? null : evaluateNumber(text, "length", numberScope(job));
    return r?.ok ? r.value.value : undefined;
  };
  const write = async () => {
    setBusy(true);
    const setups = document.setups.length ? document.setups : setupsProposed();
    const routed: JobDocument = { ...document, setups };
    const wishes = wishesOf();
    const plain = JSON.parse(JSON.stringify(routed)) as JobDocument;
    const made = await engine().derive(plain, kind, setup.op, wishes, `${freshId()}-`);
    setBusy(false);
    if (!made.ok) return void message.warning(`${made.problems[0].message}: ${made.problems[0].expected ?? ""}`, 8);
    const why = useJob.getState().edit(
      [
        { edit: "addPart", part: made.value.part },
        { edit: "setSetups", setups: made.value.setups },
      ],
      titles[kind].toLowerCase(),
    );
    if (why) return void message.warning(why, 6);
    useSetups.getState().set({ open: setup.op });
    done();
  };
  const wishesOf = (): FixtureWishes => ({
    ...(kind === "chuck" ? {} : { placement }),
    ...(blank ? { blank } : {}),
    ...Object.fromEntries(
      (["grip", "clearance", "relief", "spacer"] as const).flatMap((k) =>
        value(k) === undefined ? [] : [[k, value(k)]],
      ),
    ),
    ...(kind === "plate"
      ? {
          stations: isSerial ? undefined : { x: Number(stations.x), y: Number(stations.y) },
          pitch: { x: value("pitchX") ?? 0, y: value("pitchY") ?? 0 },
          ...(isSerial ? { serves: document.setups.map((s) => s.op) } : {}),
          ...(clamps ? { clamps } : {}),
        }
      : {}),
  });
  return (
    <Modal
      open
      title={`${titles[kind]} for setup ${setup.op}`}
      onCancel={done}
      footer={[
        <Button key="no" onClick={done}>
          cancel
        </Button>,
        <Button key="yes" type="primary" loading={busy} onClick={() => void write()}>
          write it
        </Button>,
      ]}
    >
      <p className="soft" style={{ margin: 0 }}>
        What is left empty is proposed. It is written as a part of ordinary rows that follow the piece.
      </p>
      <div className={css.form}>
        {asks[kind].map((key) => (
          <NumberBox
            key={key}
            own
            optional
            blank="proposed"
            job={job}
            label={labels[key]}
            value={typed[key]}
            quantity="length"
            commit={(t) => setTyped({ ...typed, [key]: t })}
          />
        ))}
        {kind !== "chuck" && (
          <ChoiceBox
            label="Relief stands"
            value={placement}
            options={placements}
            choose={(o) => setPlacement(o.value)}
          />
        )}
        {kind === "jaws" && (
          <ChoiceBox
            label="Jaw blank"
            value={blank}
            options={[{ value: "", label: "smallest that fits" }, ...blanks]}
            choose={(o) => setBlank(o.value)}
          />
        )}
        {kind === "plate" && (
          <>
            <ChoiceBox
              label="Stations along x"
              value={stations.x}
              options={counts}
              choose={(o) => setStations({ ...stations, x: o.value })}
            />
            <ChoiceBox
              label="Stations along y"
              value={stations.y}
              options={counts}
              choose={(o) => setStations({ ...stations, y: o.value })}
            />
            <ChoiceBox
              label="Stations serve"
              value={isSerial ? "all" : "one"}
              options={[
                { value: "one", label: `setup ${setup.op}` },
                { value: "all", label: "one setup after the other" },
              ]}
              choose={(o) => setSerial(o.value === "all")}
            />
            <ChoiceBox
              label="Clamp screws"
              value={clamps}
              options={[{ value: "", label: "none" }, ...clampThreads[job.unit].map((t) => ({ value: t, label: t }))]}
              choose={(o) => setClamps(o.value)}
            />
          </>
        )}
      </div>
    </Modal>
  );
}
