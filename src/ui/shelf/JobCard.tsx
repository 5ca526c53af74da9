"use client";
import { Button, Dropdown } from "antd";
import dayjs from "dayjs";
import Link from "next/link";
import type { ListedJob } from "@/core/job";
import { Bare } from "../fields/Bare";
import { JobPicture } from "./JobPicture";
import css from "./Shelf.module.css";

interface Actions {
  rename: () => void;
  duplicate: () => void;
  remove: () => void;
}

/** A job as it lies on the shelf: its picture and its title block. */
export function JobCard({ job, ...actions }: { job: ListedJob } & Actions) {
  const parts = job.parts > 1 ? ` · ${job.parts} parts` : "";
  return (
    <article className={css.job} data-job={job.name}>
      <Link href={`/job/${job.id}`} className={css.picture} aria-label={`open ${job.name}`}>
        <JobPicture job={job} />
      </Link>
      <div className={css.block}>
        <div className={css.name}>
          <span className="lab">Job</span>
          <Link href={`/job/${job.id}`}>{job.name}</Link>
        </div>
        <div>
          <span className="lab">Rev</span>
          {job.revision || "—"}
        </div>
        <div className={css.wide}>
          <span className="lab">Unit · material</span>
          {`${job.unit} · ${job.material || "—"}${parts}`}
        </div>
        <div className={css.wide}>
          <span className="lab">Changed</span>
          {dayjs(job.changedAt).format("D MMM YYYY, HH:mm")}
          <More job={job} {...actions} />
        </div>
      </div>
    </article>
  );
}

function More({ job, rename, duplicate, remove }: { job: ListedJob } & Actions) {
  const file = (kind: string) => `/api/jobs/${job.id}/files/${kind}`;
  const items = [
    { key: "rename", label: "rename", onClick: rename },
    { key: "copy", label: "duplicate", onClick: duplicate },
    { key: "json", label: <FileLink href={file("json")} say="export as JSON" /> },
    { key: "card", label: <FileLink href={file("card")} say="export as card" /> },
    { key: "delete", label: "delete", onClick: remove },
  ];
  return (
    <Dropdown trigger={["click"]} menu={{ items }}>
      <Bare className={css.more} aria-label={`more for ${job.name}`}>
        more …
      </Bare>
    </Dropdown>
  );
}

const FileLink = ({ href, say }: { href: string; say: string }) => (
  <a href={href} download>
    {say}
  </a>
);

/** Where a job lay that was just taken off: it can be put back there. */
export const GoneCard = ({ job, restore }: { job: ListedJob; restore: () => void }) => (
  <div className={css.gone} role="status">
    “{job.name}” is off the shelf
    <Button autoFocus onClick={restore}>
      undo
    </Button>
  </div>
);
