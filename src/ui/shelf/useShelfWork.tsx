"use client";
import { App } from "antd";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { ListedJob } from "@/core/job";
import { api, Refused } from "../store/api";
import css from "./Shelf.module.css";

const MAX_IMPORT = 6_000_000;

/** A job taken off the shelf, and where it lay: that is where it can be put back. */
export interface Gone {
  job: ListedJob;
  at: number;
}

/** The jobs as they lie, with those just taken off in their old places. */
export function onShelf(jobs: ListedJob[], gone: Gone[]): ListedJob[] {
  const all = jobs.filter((j) => !gone.some((g) => g.job.id === j.id));
  for (const { job, at } of [...gone].sort((a, b) => a.at - b.at)) all.splice(at, 0, job);
  return all;
}

/** What is done to the shelf: a job taken off, put back, brought in. */
export function useShelfWork(again: () => Promise<unknown>, failed: (e: unknown) => void) {
  const router = useRouter();
  const { modal } = App.useApp();
  const [gone, setGone] = useState<Gone[]>([]);

  const remove = async (job: ListedJob, at: number) => {
    try {
      await api.remove(job.id);
      setGone((g) => [...g, { job, at }]);
      await again();
    } catch (e) {
      failed(e);
    }
  };
  const restore = async (job: ListedJob) => {
    try {
      await api.restore(job.id);
      await again();
      setGone((g) => g.filter((x) => x.job.id !== job.id));
    } catch (e) {
      failed(e);
    }
  };
  const importFile = async (f: File) => {
    if (f.size > MAX_IMPORT)
      return failed(
        new Refused(
          [{ message: `${f.name} has ${(f.size / 1e6).toFixed(1)} MB`, expected: `at most ${MAX_IMPORT / 1e6} MB` }],
          413,
        ),
      );
    try {
      const made = await api.importText(await f.text());
      await again();
      router.push(`/job/${made.id}`);
    } catch (e) {
      if (e instanceof Refused)
        modal.error({ title: `${f.name} was not imported`, width: 560, content: <Problems of={e.problems} /> });
      else failed(e);
    }
  };
  return { gone, remove, restore, importFile };
}

const Problems = ({ of }: { of: Refused["problems"] }) => (
  <ul className={css.problems}>
    {of.map((p, i) => (
      <li key={i}>
        <b>{p.path}</b> {p.message}
        {p.expected ? ` (expected: ${p.expected})` : ""}
      </li>
    ))}
  </ul>
);
