"use client";
import { App, Button } from "antd";
import { saveBlob } from "../common/saveBlob";
import { useState } from "react";
import type { Problem } from "@/core/base/result";
import type { ExportKind } from "@/io/exportJob";
import { useJob } from "../store/jobStore";
import { useShallow } from "zustand/react/shallow";

/** Fetches a file of the job and hands it to the browser; what cannot be made says why. */
export function FileButton({
  kind,
  label,
  title,
  main,
  small,
  of = "",
  not,
}: {
  kind: ExportKind;
  label: string;
  title?: string;
  main?: boolean;
  small?: boolean;
  /** What of the job it is of, as the door asks it: `?setup=20`. */
  of?: string;
  /** Why no such file can be written; without it, it can. */
  not?: string;
}) {
  const { id, save } = useJob(useShallow((s) => ({ id: s.id, save: s.save })));
  const [busy, setBusy] = useState(false);
  const { message } = App.useApp();
  const get = async () => {
    setBusy(true);
    try {
      // What was typed last must be in the file: wait until the server has it.
      for (let i = 0; i < 40 && useJob.getState().pending; i++) await new Promise((r) => setTimeout(r, 100));
      if (useJob.getState().pending)
        throw new Error(
          "the last edits are not saved yet, and the file would be without them: see why it does not save, then ask again",
        );
      if (useJob.getState().trial)
        throw new Error("a slip is being tried and would not be in the file: keep it or put it back first");
      const r = await fetch(`/api/jobs/${id}/files/${kind}${of}`);
      if (!r.ok) {
        const { problems } = (await r.json()) as { problems: Problem[] };
        throw new Error(problems.map((p) => p.message + (p.expected ? ` (expected: ${p.expected})` : "")).join("; "));
      }
      const name = /filename="([^"]+)"/.exec(r.headers.get("content-disposition") ?? "")?.[1] ?? `job.${kind}`;
      saveBlob(await r.blob(), name);
    } catch (e) {
      void message.error(e instanceof Error ? e.message : "the server does not answer", 6);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Button
      size={small ? "small" : undefined}
      type={main ? "primary" : "default"}
      title={not ?? title}
      disabled={busy || save === "away" || not !== undefined}
      aria-busy={busy}
      onClick={() => void get()}
    >
      {busy ? `making ${label} …` : label}
    </Button>
  );
}
