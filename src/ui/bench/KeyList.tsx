"use client";
import { Modal } from "antd";
import { useBench } from "../store/benchStore";
import { keyList } from "./keys";
import css from "./Bench.module.css";

export function KeyList() {
  const { help, set } = useBench();
  return (
    <Modal
      open={help}
      onCancel={() => set({ help: false })}
      title="Keys"
      footer={null}
      width={420}
      className={css.keys}
    >
      <dl>{keyList.flatMap(([k, what]) => [<dt key={k}>{k}</dt>, <dd key={`${k}d`}>{what}</dd>])}</dl>
    </Modal>
  );
}
