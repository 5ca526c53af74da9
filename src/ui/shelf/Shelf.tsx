"use client";
import { App } from "antd";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { ListedJob } from "@/core/job";
import { api, Refused } from "../store/api";
import { GoneCard, JobCard } from "./JobCard";
import { NewJob } from "./NewJob";
import { Rename } from "./Rename";
import { ShelfCopies } from "./ShelfCopies";
import { ShelfHead } from "./ShelfHead";
import { onShelf, useShelfWork } from "./useShelfWork";
import css from "./Shelf.module.css";

/** The opening screen: the shop's jobs as cards on a shelf. */
export function Shelf({ listed }: { listed: ListedJob[] | null }) {
  const [search, setSearch] = useState("");
  const [making, setMaking] = useState(false);
  const [copies, setCopies] = useState(false);
  const [renaming, setRenaming] = useState<ListedJob | null>(null);
  const client = useQueryClient();
  const { message } = App.useApp();
  const asked = useSettled(search);
  const jobs = useQuery({
    queryKey: ["jobs", asked],
    queryFn: () => api.list(asked),
    ...(asked === "" && listed ? { initialData: listed } : {}),
  });
  const again = () => client.invalidateQueries({ queryKey: ["jobs"] });
  const failed = (e: unknown) => void message.error(said(e), 6);
  const { gone, remove, restore, importFile } = useShelfWork(again, failed);
  const lying = jobs.data ?? [];
  const actions = (job: ListedJob) => ({
    rename: () => setRenaming(job),
    duplicate: () => void api.duplicate(job.id).then(again, failed),
    remove: () => void remove(job, lying.indexOf(job)),
  });
  return (
    <div className={css.shelf}>
      <a className="skip" href="#jobs">
        to the jobs
      </a>
      <ShelfHead {...{ search, setSearch, importFile }} make={() => setMaking(true)} copies={() => setCopies(true)} />
      <main className={css.jobs} id="jobs">
        <h1 className="sr">The shelf</h1>
        {jobs.isError && <p className="red">{said(jobs.error)}</p>}
        {jobs.data?.length === 0 && <EmptyShelf asked={asked} />}
        {onShelf(lying, gone).map((j) =>
          gone.some((g) => g.job.id === j.id) ? (
            <GoneCard key={j.id} job={j} restore={() => void restore(j)} />
          ) : (
            <JobCard key={j.id} job={j} {...actions(j)} />
          ),
        )}
      </main>
      <NewJob open={making} close={() => setMaking(false)} />
      {copies && <ShelfCopies close={() => setCopies(false)} />}
      {renaming && <Rename job={renaming} close={() => setRenaming(null)} done={again} failed={failed} />}
    </div>
  );
}

const said = (e: unknown): string => (e instanceof Refused ? e.message : "the server does not answer");

/** What was typed, once nothing has been typed for a moment. */
function useSettled(text: string): string {
  const [settled, setSettled] = useState("");
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text.trim()), 200);
    return () => clearTimeout(timer);
  }, [text]);
  return settled;
}

const EmptyShelf = ({ asked }: { asked: string }) => (
  <p className="soft">
    {asked
      ? `No job has “${asked}” in its name, material or drawing number.`
      : "The shelf is empty. Start a new job: unit and material come first."}
  </p>
);
