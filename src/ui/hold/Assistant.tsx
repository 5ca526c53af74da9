"use client";
import { App, Button, Modal } from "antd";
import { useState } from "react";
import type { Job, JobDocument, Setup } from "@/core/job";
import type { FixtureKind } from "@/core/setups";
import { NumberBox } from "../common/NumberBox";
import { freshId } from "../bench/actions";
import { engine } from "../engine/engine";
import { useJob } from "../store/jobStore";
import { useSetups } from "../store/setupsStore";
import { AssistantChoices } from "./AssistantChoices";
import { setupsProposed } from "./setupEdits";
import { emptyForm, fixtures, wishesOf, type Asked, type AssistantForm } from "./wishes";
import css from "./HoldCard.module.css";

const labels: Record<Asked, string> = {
  grip: "Grip, nest depth",
  clearance: "Clearance a side",
  relief: "Relief ⌀",
  spacer: "Spacer, gap",
  pitchX: "Pitch along x",
  pitchY: "Pitch along y",
};

interface Props {
  kind: FixtureKind;
  setup: Setup;
  document: JobDocument;
  job: Job;
  done: () => void;
}

/** Asks what an assistant needs; what is left empty it proposes itself. What it writes is a part of ordinary rows. */
export function Assistant({ kind, setup, document, job, done }: Props) {
  const [form, setForm] = useState<AssistantForm>(emptyForm);
  const change = (changes: Partial<AssistantForm>) => setForm({ ...form, ...changes });
  const { busy, write } = useWriting({ kind, setup, document, job, done });
  const { title, asks } = fixtures[kind];
  const buttons = [
    <Button key="no" onClick={done}>
      cancel
    </Button>,
    <Button key="yes" type="primary" loading={busy} onClick={() => void write(form)}>
      write it
    </Button>,
  ];
  return (
    <Modal open title={`${title} for setup ${setup.op}`} onCancel={done} footer={buttons}>
      <p className="soft" style={{ margin: 0 }}>
        What is left empty is proposed. It is written as a part of ordinary rows that follow the piece.
      </p>
      <div className={css.form}>
        {asks.map((key) => (
          <NumberBox
            key={key}
            own
            optional
            blank="proposed"
            job={job}
            label={labels[key]}
            value={form.numbers[key]}
            quantity="length"
            commit={(text) => change({ numbers: { ...form.numbers, [key]: text } })}
          />
        ))}
        <AssistantChoices {...{ kind, form, change }} unit={job.unit} op={setup.op} />
      </div>
    </Modal>
  );
}

/** Has the fixture derived in the worker and puts it into the job as a part. */
function useWriting({ kind, setup, document, job, done }: Props) {
  const { message } = App.useApp();
  const [busy, setBusy] = useState(false);
  const write = async (form: AssistantForm) => {
    setBusy(true);
    const setups = document.setups.length ? document.setups : setupsProposed();
    const routed = JSON.parse(JSON.stringify({ ...document, setups })) as JobDocument;
    const wishes = wishesOf(form, kind, document, job);
    const made = await engine().derive(routed, kind, setup.op, wishes, `${freshId()}-`);
    setBusy(false);
    if (!made.ok) return void message.warning(`${made.problems[0].message}: ${made.problems[0].expected ?? ""}`, 8);
    const { part, setups: held } = made.value;
    const edits = [{ edit: "addPart", part } as const, { edit: "setSetups", setups: held } as const];
    const why = useJob.getState().edit(edits, fixtures[kind].title.toLowerCase());
    if (why) return void message.warning(why, 6);
    useSetups.getState().set({ open: setup.op });
    done();
  };
  return { busy, write };
}
