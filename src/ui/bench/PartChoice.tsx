"use client";
import { App, Button, Modal, Select } from "antd";
import { useState } from "react";
import { partKindIds, partKinds, partName, type JobDocument, type Part } from "@/core/job";
import { freshId } from "./actions";
import { Choice } from "../fields/Choice";
import { TextField } from "../fields/TextField";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import css from "./PartChoice.module.css";

const kinds = partKindIds.map((value) => ({ value, label: partKinds[value].what }));
const MANAGE = " manage";

/** Lays another part of the job on the bench. */
function turnTo(id: string): void {
  useJob.getState().showPart(id);
  useBench
    .getState()
    .set({ openRow: null, selected: null, picked: null, showRow: null, openOutline: null, ghost: null });
}

/** Which part of the job is on the bench, in the title block. */
export function PartChoice() {
  const document = useJob((s) => s.document)!;
  const at = useJob((s) => s.part);
  const [managing, setManaging] = useState(false);
  const options = [
    ...document.parts.map((p, i) => ({ value: p.id, label: i ? partName(document, p) : "workpiece" })),
    { value: MANAGE, label: "parts …" },
  ];
  return (
    <div className={css.cell}>
      <span className="lab">Part{document.parts.length > 1 ? ` · ${document.parts.length}` : ""}</span>
      <Select
        size="small"
        variant="borderless"
        aria-label="Part on the bench"
        popupMatchSelectWidth={false}
        value={at ?? document.parts[0].id}
        options={options}
        onChange={(id: string) => (id === MANAGE ? setManaging(true) : turnTo(id))}
      />
      <Modal
        open={managing}
        title="Parts of this job"
        footer={null}
        onCancel={() => setManaging(false)}
        destroyOnHidden
      >
        <PartList done={() => setManaging(false)} />
      </Modal>
    </div>
  );
}

/** Says why an edit was not taken. */
function useSaid() {
  const { message } = App.useApp();
  return (why: string | null) => void (why && message.warning(why, 6));
}

/** The parts of a job: named, made, deleted. */
function PartList({ done }: { done: () => void }) {
  const document = useJob((s) => s.document)!;
  return (
    <div className={css.list}>
      {document.parts.map((p, i) => (
        <PartLine key={p.id} document={document} part={p} number={i + 1} done={done} />
      ))}
      <NewPart document={document} done={done} />
      <p className="soft">
        Lines of one part may follow another: in an outline, SECTION Z 3 OF &quot;
        {partName(document, document.parts[0])}&quot;.
      </p>
    </div>
  );
}

interface PartLineProps {
  document: JobDocument;
  part: Part;
  number: number;
  done: () => void;
}

/** One part; the first is the workpiece, which stays and goes by the job's own name. */
function PartLine({ document, part, number, done }: PartLineProps) {
  const edit = useJob((s) => s.edit);
  const say = useSaid();
  const isWork = number === 1;
  const rename = (name: string) => {
    if (name || isWork) say(edit([{ edit: "setPart", id: part.id, part: { name } }], "name of a part"));
  };
  const work = () => {
    turnTo(part.id);
    done();
  };
  const remove = () => {
    turnTo(document.parts[0].id);
    say(edit([{ edit: "deletePart", id: part.id }], "delete part"));
  };
  return (
    <div className={css.part}>
      <TextField
        aria-label={`Name of part ${number}`}
        value={part.name}
        placeholder={isWork ? document.name : ""}
        maxLength={120}
        commit={rename}
      />
      <span className="soft">
        {isWork ? "the workpiece" : partKinds[part.kind].what}, {part.rows.length} rows
      </span>
      <Button size="small" onClick={work}>
        work on it
      </Button>
      {!isWork && (
        <Button size="small" aria-label={`Delete part ${part.name}`} onClick={remove}>
          ×
        </Button>
      )}
    </div>
  );
}

function NewPart({ document, done }: { document: JobDocument; done: () => void }) {
  const edit = useJob((s) => s.edit);
  const say = useSaid();
  const [kind, setKind] = useState<Part["kind"]>("jaws");
  const add = () => {
    const words = partKinds[kind].name;
    const names = document.parts.map((p) => partName(document, p).toLowerCase());
    const name = names.includes(words) ? `${words} ${document.parts.length + 1}` : words;
    const part: Part = { id: freshId(), name, kind, stock: null, outlines: [], rows: [] };
    const why = edit([{ edit: "addPart", part }], "new part");
    if (why) return say(why);
    turnTo(part.id);
    done();
  };
  return (
    <div className={css.part}>
      <Choice
        label="What the new part is"
        value={kind}
        options={kinds}
        choose={(k) => setKind(kinds.find((o) => o.value === k)!.value)}
      />
      <Button size="small" type="primary" onClick={add}>
        + part
      </Button>
    </div>
  );
}
