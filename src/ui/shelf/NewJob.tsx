"use client";
import { unitOf } from "@/core/number";
import { App, AutoComplete, Button, Input, Modal, Radio } from "antd";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { materials } from "@/core/tables";
import { api, Refused } from "../store/api";
import { MaterialHint } from "../common/MaterialHint";
import css from "./Shelf.module.css";

/** A new job: unit and material are asked before anything else. */
export function NewJob({ open, close }: { open: boolean; close: () => void }) {
  const [unit, setUnit] = useState<"in" | "mm" | null>(null);
  const [material, setMaterial] = useState("");
  const [name, setName] = useState("");
  const [busy, setBusy] = useState(false);
  const router = useRouter();
  const { message } = App.useApp();
  const make = async () => {
    if (!unit || !name.trim() || busy) return;
    setBusy(true);
    try {
      const made = await api.create(name.trim(), unit, material.trim());
      router.push(`/job/${made.id}?step=print`);
    } catch (e) {
      void message.error(e instanceof Refused ? e.message : "the server does not answer");
      setBusy(false);
    }
  };
  return (
    <Modal open={open} title="New job" onCancel={close} footer={null} width={460} destroyOnHidden>
      <form
        className={css.form}
        onSubmit={(e) => {
          e.preventDefault();
          void make();
        }}
      >
        <fieldset className={css.units}>
          <legend className="lab">Which unit does the print use?</legend>
          {(["in", "mm"] as const).map((u) => (
            <Radio
              key={u}
              name="unit"
              className={unit === u ? css.chosen : undefined}
              checked={unit === u}
              onChange={() => setUnit(u)}
            >
              {unitOf[u].word}
            </Radio>
          ))}
        </fieldset>
        <label>
          <span className="lab">Material</span>
          <AutoComplete
            style={{ width: "100%" }}
            value={material}
            onChange={setMaterial}
            maxLength={120}
            placeholder="as the print names it"
            options={materials.rows.map((m) => ({ value: m.name, label: `${m.name}, ${m.density.toFixed(2)} g/cm³` }))}
            filterOption={(t, o) => String(o?.value).includes(t.trim().toLowerCase())}
            aria-label="Material"
          />
          <span className={css.hint} role="status">
            <MaterialHint name={material} choose={setMaterial} />
          </span>
        </label>
        <label>
          <span className="lab">Name of the part</span>
          <Input value={name} maxLength={120} onChange={(e) => setName(e.target.value)} placeholder="Gauge lid" />
        </label>
        <div className={css.actions}>
          <span className="soft">{!unit ? "the unit comes first" : !name.trim() ? "it needs a name" : ""}</span>
          <Button onClick={close}>Cancel</Button>
          <Button htmlType="submit" type="primary" disabled={!unit || !name.trim() || busy}>
            Start
          </Button>
        </div>
      </form>
    </Modal>
  );
}
