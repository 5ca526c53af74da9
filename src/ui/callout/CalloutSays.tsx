"use client";
import { Button } from "antd";
import type { ReadCallout } from "@/core/callout";
import type { Job } from "@/core/job";
import { RowWords } from "./RowWords";
import { Starters } from "./Starters";
import { isUnfinished, type Line, type Where } from "./useCallout";

interface Props {
  job: Job;
  line: Line;
  put: (text: string) => void;
}

/** Under the line: how to begin, what comes next, what is wrong, or what Enter will do. */
export function CalloutSays({ job, line, put }: Props) {
  const { read, badNumber } = line;
  if (!read) return <Starters put={put} unit={job.unit} first={job.rows.length === 0} />;
  if (!read.ok) return <Wrong read={read} unfinished={isUnfinished(read, line.text)} put={put} />;
  if (!badNumber) return <Understood job={job} line={line} read={read} />;
  const { message, expected } = badNumber.problem!;
  return (
    <span className="red">
      {badNumber.label.toLowerCase()}: {message}
      {expected ? `; expected: ${expected}` : ""}. Enter puts it on the card all the same
    </span>
  );
}

type Read = Extract<ReadCallout, { ok: true }>;

/** What was understood, and where Enter puts it. */
function Understood({ job, line, read }: { job: Job; line: Line; read: Read }) {
  const { where, chosen } = line;
  const it = read.more.length > 0 ? "them" : "it";
  return (
    <>
      {read.as ? <b>{read.as}</b> : <RowWords row={read.row} numbers={line.numbers} job={job} />}
      {read.more.length > 0 && ` (${read.more.length + 1} rows)`}
      {chosen && where !== "last" ? `; Enter puts ${it} ${where} row ${chosen} ` : `; Enter puts ${it} last `}
      {chosen > 0 && <OtherPlaces job={job} line={line} />}
      {read.toleranced.length > 0 && (
        <Button size="small" onClick={() => line.enter(true)}>
          keep {read.toleranced.map((t) => `${t.text} ${t.tolerance}`).join(", ")} in the ledger
        </Button>
      )}
    </>
  );
}

const places: Where[] = ["last", "after", "before"];

/** After the last row is where it goes anyway. */
function OtherPlaces({ job, line: { where, chosen, setWhere } }: { job: Job; line: Line }) {
  const others = places.filter((w) => w !== where && !(w === "after" && chosen === job.rows.length));
  return others.map((w) => (
    <Button key={w} size="small" onClick={() => setWhere(w)}>
      {w === "last" ? "put it last" : `${w} row ${chosen}`}
    </Button>
  ));
}

/** What is wrong with the text, or what comes next in it; and what could be typed instead. */
function Wrong({
  read: { error },
  unfinished,
  put,
}: {
  read: Extract<ReadCallout, { ok: false }>;
  unfinished: boolean;
  put: (text: string) => void;
}) {
  return (
    <>
      <span className={unfinished ? undefined : "red"}>
        {unfinished ? `next: ${error.expected.toLowerCase()}` : `${error.message}; expected: ${error.expected}`}
      </span>
      {error.instead && (
        <>
          . Type{" "}
          <Button size="small" onClick={() => put(error.instead!)} title="Tab takes it">
            {error.instead}
          </Button>{" "}
          instead (Tab)
        </>
      )}
    </>
  );
}
