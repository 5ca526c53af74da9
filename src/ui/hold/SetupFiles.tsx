"use client";
import { partThatHolds } from "@/core/job";
import { Button } from "antd";
import type { JobDocument, Setup } from "@/core/job";
import { engine } from "../engine/engine";
import { FileButton } from "../release/FileButton";
import { useSetups } from "../store/setupsStore";

/** Hands bytes to the browser as a file. */
function download(bytes: Uint8Array, name: string): void {
  const url = URL.createObjectURL(new Blob([bytes as BlobPart], { type: "model/step" }));
  const a = window.document.createElement("a");
  a.href = url;
  a.download = name;
  a.click();
  URL.revokeObjectURL(url);
}

/** Files of a setup: all that stands in it as one STEP file, and each thing that holds alone. */
export function SetupFiles({ setup, document }: { setup: Setup; document: JobDocument }) {
  const bodies = useSetups((s) => s.bodies);
  if (!bodies.length) return null;
  const { hold } = setup;
  const part = partThatHolds(hold);
  const save = async (name: string | null) => {
    const bytes = await engine().setupStep(JSON.parse(JSON.stringify(document)) as JobDocument, setup.op, name);
    const what = name ?? `setup ${setup.op}`;
    if (bytes) download(bytes, `${document.name} ${what}.step`.replace(/[\\/:*?"<>|]/g, " "));
  };
  return (
    <>
      <Button size="small" onClick={() => void save(null)}>
        as it stands: STEP
      </Button>
      <FileButton small kind="pdf" label={`sheet of setup ${setup.op}: PDF`} of={`?setup=${setup.op}`} />
      {part && (
        <>
          <FileButton small kind="pdf" label={`sheet of ${part}: PDF`} of={`?part=${encodeURIComponent(part)}`} />
          <FileButton small kind="dxf" label="nest: DXF" of={`?part=${encodeURIComponent(part)}`} />
        </>
      )}
      {bodies
        .filter((b) => b.is === "holder")
        .map((b) => (
          <Button key={b.name} size="small" onClick={() => void save(b.name)}>
            {b.name}: STEP
          </Button>
        ))}
    </>
  );
}
