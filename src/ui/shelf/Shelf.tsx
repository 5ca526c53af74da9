"use client";
import { App, Button, Dropdown, Input, Modal } from "antd";
import type { Patches } from "mutative";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import dayjs from "dayjs";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import type { ListedJob } from "@/core/job";
import { api, Refused } from "../store/api";
import { useLight } from "../common/light";
import { JobPicture } from "./JobPicture";
import { NewJob } from "./NewJob";
import css from "./Shelf.module.css";
import { Bare } from "../fields/Bare";
import { FilePick } from "../fields/FilePick";

const MAX_IMPORT = 6_000_000;

/** The opening screen: the shop's jobs as cards on a shelf. */
export function Shelf({ listed }: { listed: ListedJob[] | null }) {
  const [search, setSearch] = useState("");
  const [asked, setAsked] = useState("");
  const [making, setMaking] = useState(false);
  const [renaming, setRenaming] = useState<ListedJob | null>(null);
  const client = useQueryClient();
  const router = useRouter();
  const { message, notification, modal } = App.useApp();
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

  const remove = async (j: ListedJob) => {
    try {
      await api.remove(j.id);
      await again();
      notification.open({
        key: j.id,
        message: `“${j.name}” is off the shelf`,
        duration: 20,
        btn: (
          <Button
            size="small"
            onClick={() => {
              void api.restore(j.id).then(again, failed);
              notification.destroy(j.id);
            }}
          >
            undo
          </Button>
        ),
      });
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
        modal.error({
          title: `${f.name} was not imported`,
          width: 560,
          content: (
            <ul className={css.problems}>
              {e.problems.map((p, i) => (
                <li key={i}>
                  <b>{p.path}</b> {p.message}
                  {p.expected ? ` (expected: ${p.expected})` : ""}
                </li>
              ))}
            </ul>
          ),
        });
      else failed(e);
    }
  };
  return (
    <div className={css.shelf}>
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
      <main className={css.jobs}>
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
        {jobs.data?.map((j) => (
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
              </div>
              <div className={css.wide}>
                <span className="lab">Changed</span>
                {dayjs(j.changedAt).format("D MMM YYYY, HH:mm")}
                <Dropdown
                  trigger={["click"]}
                  menu={{
                    items: [
                      { key: "rename", label: "rename", onClick: () => setRenaming(j) },
                      { key: "copy", label: "duplicate", onClick: () => void api.duplicate(j.id).then(again, failed) },
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
                      { key: "delete", label: "delete", onClick: () => void remove(j) },
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
        ))}
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

function Rename({
  job,
  close,
  done,
  failed,
}: {
  job: ListedJob;
  close: () => void;
  done: () => void;
  failed: (e: unknown) => void;
}) {
  const [name, setName] = useState(job.name);
  const save = async () => {
    try {
      const now = await api.read(job.id);
      const r = await api.save(
        job.id,
        now.revision,
        [{ op: "replace", path: ["name"], value: name.trim() }] as Patches,
        crypto.randomUUID(),
      );
      if ("conflict" in r) throw new Refused([{ message: "the job was changed meanwhile; try again" }], 409);
      done();
    } catch (e) {
      failed(e);
    }
  };
  return (
    <Modal open title="Rename" onCancel={close} footer={null} width={420}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (name.trim()) void save();
        }}
        className={css.form}
      >
        <label>
          <span className="lab">Name</span>
          <Input autoFocus value={name} maxLength={120} onChange={(e) => setName(e.target.value)} />
        </label>
        <div className={css.actions}>
          <Button onClick={close}>Cancel</Button>
          <Button htmlType="submit" type="primary" disabled={!name.trim()}>
            Rename
          </Button>
        </div>
      </form>
    </Modal>
  );
}
