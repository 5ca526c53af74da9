"use client";
import { App, Button, Dropdown, Input } from "antd";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import dayjs from "dayjs";
import Link from "next/link";
import { useEffect, useState } from "react";
import type { ListedJob } from "@/core/job";
import { api, Refused } from "../store/api";
import { useLight } from "../common/light";
import { JobPicture } from "./JobPicture";
import { NewJob } from "./NewJob";
import { Rename } from "./Rename";
import { onShelf, useShelfWork } from "./useShelfWork";
import css from "./Shelf.module.css";
import { Bare } from "../fields/Bare";
import { FilePick } from "../fields/FilePick";

/** The opening screen: the shop's jobs as cards on a shelf. */
export function Shelf({ listed }: { listed: ListedJob[] | null }) {
  const [search, setSearch] = useState("");
  const [asked, setAsked] = useState("");
  const [making, setMaking] = useState(false);
  const [renaming, setRenaming] = useState<ListedJob | null>(null);
  const client = useQueryClient();
  const { message } = App.useApp();
  const { light, start, turn } = useLight();
  useEffect(start, [start]);
  useEffect(() => {
    const t = setTimeout(() => setAsked(search.trim()), 200);
    return () => clearTimeout(t);
  }, [search]);
  const jobs = useQuery({
    queryKey: ["jobs", asked],
    queryFn: () => api.list(asked),
    ...(asked === "" && listed ? { initialData: listed } : {}),
  });
  const again = () => client.invalidateQueries({ queryKey: ["jobs"] });
  const failed = (e: unknown) => void message.error(e instanceof Refused ? e.message : "the server does not answer", 6);

  const { gone, remove, restore, importFile } = useShelfWork(again, failed);

  return (
    <div className={css.shelf}>
      <a className="skip" href="#jobs">
        to the jobs
      </a>
      <header className={css.head}>
        <span className={css.mark}>
          <i />
          SGORBIA
        </span>
        <span className={css.say}>from a print to checked geometry, before programming</span>
        <Input
          className={css.search}
          type="search"
          allowClear
          placeholder="search name, material, drawing"
          aria-label="Search jobs"
          value={search}
          onChange={(e) => setSearch(e.target.value)}
        />
        <Button onClick={turn}>{light === "dark" ? "paper" : "dark"}</Button>
        <FilePick
          label="File to import"
          accept=".json,.card,.txt,application/json,text/plain"
          pick={(f) => void importFile(f)}
        >
          Import
        </FilePick>
        <Button type="primary" onClick={() => setMaking(true)}>
          New job
        </Button>
      </header>
      <main className={css.jobs} id="jobs">
        <h1 className="sr">The shelf</h1>
        {jobs.isError && (
          <p className="red">{jobs.error instanceof Refused ? jobs.error.message : "the server does not answer"}</p>
        )}
        {jobs.data?.length === 0 && (
          <p className="soft">
            {asked
              ? `No job has “${asked}” in its name, material or drawing number.`
              : "The shelf is empty. Start a new job: unit and material come first."}
          </p>
        )}
        {onShelf(jobs.data ?? [], gone).map((j) =>
          gone.some((g) => g.job.id === j.id) ? (
            <div key={j.id} className={css.gone} role="status">
              “{j.name}” is off the shelf
              <Button autoFocus onClick={() => void restore(j)}>
                undo
              </Button>
            </div>
          ) : (
            <article key={j.id} className={css.job} data-job={j.name}>
              <Link href={`/job/${j.id}`} className={css.picture} aria-label={`open ${j.name}`}>
                <JobPicture job={j} />
              </Link>
              <div className={css.block}>
                <div className={css.name}>
                  <span className="lab">Job</span>
                  <Link href={`/job/${j.id}`}>{j.name}</Link>
                </div>
                <div>
                  <span className="lab">Rev</span>
                  {j.revision || "—"}
                </div>
                <div className={css.wide}>
                  <span className="lab">Unit · material</span>
                  {j.unit} · {j.material || "—"}
                  {j.parts > 1 ? ` · ${j.parts} parts` : ""}
                </div>
                <div className={css.wide}>
                  <span className="lab">Changed</span>
                  {dayjs(j.changedAt).format("D MMM YYYY, HH:mm")}
                  <Dropdown
                    trigger={["click"]}
                    menu={{
                      items: [
                        { key: "rename", label: "rename", onClick: () => setRenaming(j) },
                        {
                          key: "copy",
                          label: "duplicate",
                          onClick: () => void api.duplicate(j.id).then(again, failed),
                        },
                        {
                          key: "json",
                          label: (
                            <a href={`/api/jobs/${j.id}/files/json`} download>
                              export as JSON
                            </a>
                          ),
                        },
                        {
                          key: "card",
                          label: (
                            <a href={`/api/jobs/${j.id}/files/card`} download>
                              export as card
                            </a>
                          ),
                        },
                        { key: "delete", label: "delete", onClick: () => void remove(j, jobs.data!.indexOf(j)) },
                      ],
                    }}
                  >
                    <Bare className={css.more} aria-label={`more for ${j.name}`}>
                      more …
                    </Bare>
                  </Dropdown>
                </div>
              </div>
            </article>
          ),
        )}
      </main>
      <NewJob open={making} close={() => setMaking(false)} />
      {renaming && (
        <Rename
          job={renaming}
          close={() => setRenaming(null)}
          done={() => {
            setRenaming(null);
            void again();
          }}
          failed={failed}
        />
      )}
    </div>
  );
}
