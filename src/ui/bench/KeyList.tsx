"use client";
import { Modal } from "antd";
import { useBench } from "../store/benchStore";
import { keyList } from "./keys";
import css from "./Bench.module.css";
import { useShallow } from "zustand/react/shallow";

export function KeyList() {
  const { help, set } = useBench(useShallow((s) => ({ help: s.help, set: s.set })));
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
