"use client";
import { App, AutoComplete, Button, Input, Modal, Radio, type RadioRef } from "antd";
import { useRouter } from "next/navigation";
import { useRef, useState, type FormEvent, type Ref } from "react";
import { densityText, unitOf, unitNames, type LengthUnit } from "@/core/number";
import { materials } from "@/core/tables";
import { api, Refused } from "../store/api";
import { useTypedEnter } from "../fields/useTypedEnter";
import { MaterialHint } from "../common/MaterialHint";
import css from "./Shelf.module.css";

/** A new job: unit and material are asked before anything else. */
export function NewJob({ open, close }: { open: boolean; close: () => void }) {
  const [unit, setUnit] = useState<LengthUnit | null>(null);
  const [material, setMaterial] = useState("");
  const [name, setName] = useState("");
  const first = useRef<RadioRef>(null);
  const { busy, make } = useMaking();
  const missing = !unit ? "the unit comes first" : !name.trim() ? "it needs a name" : "";
  const submit = (e: FormEvent) => {
    e.preventDefault();
    if (unit && !missing && !busy) void make(name.trim(), unit, material.trim());
  };
  return (
    // The unit comes first, and so does the keyboard: the dialog alone would give it to its cross.
    <Modal
      open={open}
      title="New job"
      onCancel={close}
      footer={null}
      width={460}
      destroyOnHidden
      // At once: while it came in, the keyboard would be at its cross.
      transitionName=""
      maskTransitionName=""
      afterOpenChange={(isOpen) => void (isOpen && first.current?.focus())}
    >
      <form className={css.form} onSubmit={submit}>
        <UnitChoice unit={unit} choose={setUnit} first={first} />
        <label>
          <span className="lab">Material</span>
          <MaterialField name={material} unit={unit} choose={setMaterial} />
        </label>
        <label>
          <span className="lab">Name of the part</span>
          <Input value={name} maxLength={120} onChange={(e) => setName(e.target.value)} placeholder="Gauge lid" />
        </label>
        <div className={css.actions}>
          <span className="soft">{missing}</span>
          <Button onClick={close}>Cancel</Button>
          <Button htmlType="submit" type="primary" disabled={missing !== "" || busy}>
            Start
          </Button>
        </div>
      </form>
    </Modal>
  );
}

/** Asks the server for a job and goes there. */
function useMaking() {
  const [busy, setBusy] = useState(false);
  const router = useRouter();
  const { message } = App.useApp();
  const make = async (name: string, unit: LengthUnit, material: string) => {
    setBusy(true);
    try {
      const made = await api.create(name, unit, material);
      router.push(`/job/${made.id}?step=print`);
    } catch (e) {
      void message.error(e instanceof Refused ? e.message : "the server does not answer");
      setBusy(false);
    }
  };
  return { busy, make };
}

interface UnitChoiceProps {
  unit: LengthUnit | null;
  choose: (unit: LengthUnit) => void;
  /** The first of the choices. */
  first: Ref<RadioRef>;
}

const UnitChoice = ({ unit, choose, first }: UnitChoiceProps) => (
  <fieldset className={css.units}>
    <legend className="lab">Which unit does the print use?</legend>
    {unitNames.map((u, at) => (
      <Radio
        key={u}
        ref={at === 0 ? first : undefined}
        name="unit"
        className={unit === u ? css.chosen : undefined}
        checked={unit === u}
        onChange={() => choose(u)}
      >
        {unitOf[u].word}
      </Radio>
    ))}
  </fieldset>
);

const offered = (unit: LengthUnit) =>
  materials.rows.map((m) => ({ value: m.name, label: `${m.name}, ${densityText(m.density, unit)}` }));

interface MaterialFieldProps {
  name: string;
  unit: LengthUnit | null;
  choose: (name: string) => void;
}

function MaterialField({ name, unit, choose }: MaterialFieldProps) {
  const enter = useTypedEnter((field) => field.form?.requestSubmit());
  return (
    <>
      <span {...enter}>
        <AutoComplete
          style={{ width: "100%" }}
          value={name}
          onChange={choose}
          maxLength={120}
          placeholder="as the print names it"
          options={offered(unit ?? "mm")}
          filterOption={(typed, o) => String(o?.value).toLowerCase().includes(typed.trim().toLowerCase())}
          aria-label="Material"
        />
      </span>
      <span className={css.hint} role="status">
        <MaterialHint {...{ name, unit, choose }} />
      </span>
    </>
  );
}
