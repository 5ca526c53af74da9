"use client";
import { App } from "antd";
import { useState } from "react";
import type { Job } from "@/core/job";
import { api, Refused } from "../store/api";
import { useJob } from "../store/jobStore";

const MAX = 20_000_000;
type Kept = NonNullable<Job["solids"]>[number];

/** STEP files brought to the server and named for the job, which has still to keep them. */
export function useStepFile() {
  const { message } = App.useApp();
  const [isBusy, setBusy] = useState(false);
  const say = (text: string) => void message.error(text, 6);
  const read = async (f: File): Promise<Kept | null> => {
    if (f.size > MAX) {
      say(`${f.name} has ${(f.size / 1e6).toFixed(1)} MB; at most ${MAX / 1e6} MB are kept`);
      return null;
    }
    setBusy(true);
    try {
      const { hash, mediaType } = await api.attach(f);
      if (mediaType === "model/step")
        return { name: freeName(f.name, useJob.getState().job!.solids ?? []), attachment: hash };
      say(`${f.name} is no STEP file`);
    } catch (e) {
      say(e instanceof Refused ? `${f.name}: ${e.message}` : "the server does not answer; the file was not kept");
    } finally {
      setBusy(false);
    }
    return null;
  };
  return { isBusy, read, say };
}

/** A name no other file of the job has: the same name is another file until it is looked into. */
function freeName(wanted: string, kept: { name: string }[]): string {
  const plain = wanted.replace(/"/g, "”").slice(0, 110) || "solid.step";
  const taken = new Set(kept.map((s) => s.name.toLowerCase()));
  for (let i = 1; ; i++) {
    const name = i === 1 ? plain : plain.replace(/(\.\w+)?$/, (end) => ` ${i}${end}`);
    if (!taken.has(name.toLowerCase())) return name;
  }
}
