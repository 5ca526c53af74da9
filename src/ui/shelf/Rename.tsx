"use client";
import { Button, Input, Modal } from "antd";
import type { Patches } from "mutative";
import { useState } from "react";
import type { ListedJob } from "@/core/job";
import { api, Refused } from "../store/api";
import css from "./Shelf.module.css";

/** Another name for a job that lies on the shelf. */
export function Rename({
  job,
  close,
  done,
  failed,
}: {
  job: ListedJob;
  close: () => void;
  done: () => void;
  failed: (e: unknown) => void;
}) {
  const [name, setName] = useState(job.name);
  const save = async () => {
    try {
      const now = await api.read(job.id);
      const r = await api.save(
        job.id,
        now.revision,
        [{ op: "replace", path: ["name"], value: name.trim() }] as Patches,
        crypto.randomUUID(),
      );
      if ("conflict" in r) throw new Refused([{ message: "the job was changed meanwhile; try again" }], 409);
      close();
      done();
    } catch (e) {
      failed(e);
    }
  };
  return (
    <Modal open title="Rename" onCancel={close} footer={null} width={420}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (name.trim()) void save();
        }}
        className={css.form}
      >
        <label>
          <span className="lab">Name</span>
          <Input autoFocus value={name} maxLength={120} onChange={(e) => setName(e.target.value)} />
        </label>
        <div className={css.actions}>
          <Button onClick={close}>Cancel</Button>
          <Button htmlType="submit" type="primary" disabled={!name.trim()}>
            Rename
          </Button>
        </div>
      </form>
    </Modal>
  );
}
