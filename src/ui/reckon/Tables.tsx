import { Button, Input } from "antd";
import { useEffect, useMemo, useState } from "react";
import type { Job } from "@/core/job";
import { entryResults } from "@/core/reckon";
import { lookUp, nearestSizes, searchTables, tablePages, type TableEntry } from "@/core/tables";
import { ResultLine } from "./ResultLine";
import css from "./Reckoner.module.css";

/** Entries shown of one table at once. */
const SHOWN = 60;

/** The tables a shop keeps open: a size typed as prints call it, or a table looked through. */
export function Tables({ job }: { job: Job }) {
  const [asked, setAsked] = useState("");
  const entry = useMemo(() => lookUp(asked), [asked]);
  // What is searched is put together while nobody types yet.
  useEffect(() => {
    const later = setTimeout(() => searchTables("M6"), 200);
    return () => clearTimeout(later);
  }, []);
  return (
    <>
      <Input
        size="small"
        aria-label="Look up in the tables"
        placeholder="M10-6g, M6 clearance, 25 H7, keyway 28, DRILL #7"
        value={asked}
        maxLength={60}
        spellCheck={false}
        onChange={(e) => setAsked(e.target.value)}
      />
      {entry ? <EntryResults job={job} entry={entry} /> : <Looked asked={asked} ask={setAsked} />}
    </>
  );
}

/** All a table says of one size, each figure to be used in a field, with where it is from. */
function EntryResults({ job, entry }: { job: Job; entry: TableEntry }) {
  return (
    <section aria-label={entry.what}>
      <h3 className={css.entry}>{entry.what}</h3>
      <ul className={css.results}>
        {entryResults(entry, job.unit).map((g) => (
          <ResultLine key={g.label} job={job} given={g} />
        ))}
        {Object.entries(entry.words ?? {}).map(([name, text]) => (
          <li key={name} className={css.words}>
            <span>{name}</span>
            <span>{text}</span>
          </li>
        ))}
      </ul>
      <p className={css.source}>
        {entry.standard}: {entry.source}
      </p>
    </section>
  );
}

/** What was found of a query that calls no size whole: entries, the sizes nearest to it, and the tables themselves. */
function Looked({ asked, ask }: { asked: string; ask: (query: string) => void }) {
  const [open, setOpen] = useState<string | null>(null);
  const typed = asked.trim();
  const found = useMemo(() => (typed ? searchTables(typed, SHOWN) : []), [typed]);
  const near = useMemo(() => (typed && !found.length ? nearestSizes(typed) : []), [typed, found]);
  if (typed && (found.length || near.length))
    return (
      <>
        {near.length > 0 && <p className={css.source}>no table has {typed}; nearest:</p>}
        <Entries entries={near.length ? near : found.map((f) => f.entry)} ask={ask} />
      </>
    );
  if (typed) return <p className="red">no table has {typed}</p>;
  return (
    <ul className={css.tables}>
      {tablePages.map((page) => (
        <li key={page.id}>
          <Button
            type="text"
            size="small"
            aria-expanded={open === page.id}
            onClick={() => setOpen(open === page.id ? null : page.id)}
          >
            {page.title}
          </Button>
          <small>{page.standard}</small>
          {open === page.id && (
            <>
              <p className={css.source}>
                {page.source}; as: {page.example}
              </p>
              <Entries entries={page.entries().slice(0, SHOWN)} ask={ask} />
              {page.entries().length > SHOWN && (
                <p className={css.source}>{page.entries().length - SHOWN} more: type the one that is wanted</p>
              )}
            </>
          )}
        </li>
      ))}
    </ul>
  );
}

function Entries({ entries, ask }: { entries: readonly TableEntry[]; ask: (query: string) => void }) {
  return (
    <ul className={css.entries}>
      {entries.map((e) => (
        <li key={e.what}>
          <Button size="small" type="text" onClick={() => ask(e.what)}>
            {e.what}
          </Button>
        </li>
      ))}
    </ul>
  );
}
