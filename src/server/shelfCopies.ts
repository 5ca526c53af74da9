import { createReadStream, createWriteStream, existsSync } from "node:fs";
import { mkdir, open, readdir, rename, rm, stat } from "node:fs/promises";
import path from "node:path";
import { createInterface } from "node:readline";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { createGunzip, createGzip } from "node:zlib";
import { fail, ok, type Result } from "@/core/base/result";
import type { Database } from "./database";
import { migrate, migrationNames, migrationsDone } from "./migrations";
import { problems } from "./problems";
import { copyOf, type ShelfCopy } from "@/core/job";

/** How many dated copies of a shelf are kept; the oldest go first. */
const KEPT = 10;
const FORM = "sgorbia.shelf";
const FORM_VERSION = 1;

/**
 * What a copy holds, in the order it is put back in: first what others refer to. What can be computed again
 * (`job_standing`) is not in it. `later` is only ever added to and is read after the rest, without holding up a save;
 * `page` is how many of its rows are read at once.
 */
const TABLES: { name: string; key: string; page: number; later?: true }[] = [
  { name: "job", key: "id", page: 50 },
  { name: "job_summary", key: "job_id", page: 200 },
  { name: "job_leftover", key: "id", page: 20 },
  { name: "shop_setting", key: "name", page: 200 },
  { name: "job_edit", key: "id", page: 500, later: true },
  { name: "attachment", key: "hash", page: 1, later: true },
  { name: "attachment_piece", key: "hash, piece", page: 4, later: true },
];

const copyName = (why: string, at: Date): string => `shelf-${at.toISOString().replace(/[:.]/g, "-")}-${why}.gz`;

/**
 * Writes a dated copy of the whole shelf: jobs, their log, prints and solids, the shop's figures. It counts only when
 * it is whole and on the disk.
 * @param why a short word that becomes part of its name: `daily`, `before-004`, `asked`
 * @param spare a copy that stays, however old
 */
export async function copyShelf(db: Database, into: string, why: string, spare?: string): Promise<ShelfCopy> {
  await mkdir(into, { recursive: true });
  const name = copyName(why, new Date());
  const half = path.join(into, `${name}.part`);
  try {
    await pipeline(Readable.from(linesOf(db)), createGzip(), createWriteStream(half));
    const file = await open(half, "r+");
    await file.sync();
    await file.close();
    await rename(half, path.join(into, name));
  } catch (e) {
    await rm(half, { force: true });
    throw e;
  }
  for (const old of (await listCopies(into)).slice(KEPT))
    if (old.name !== spare) await rm(path.join(into, old.name), { force: true });
  return copyOf(name, (await stat(path.join(into, name))).size)!;
}

/** The copies that are kept, the newest first. */
export async function listCopies(folder: string): Promise<ShelfCopy[]> {
  if (!existsSync(folder)) return [];
  const found: ShelfCopy[] = [];
  for (const name of await readdir(folder)) {
    const copy = copyOf(name, (await stat(path.join(folder, name))).size);
    if (copy) found.push(copy);
  }
  return found.sort((a, b) => (a.at < b.at ? 1 : -1));
}

/** The lines of a copy: what it is, a line a row, and how many there were. */
export async function* linesOf(db: Database): AsyncGenerator<string> {
  const migrations = await migrationsDone(db);
  yield `${JSON.stringify({ form: FORM, version: FORM_VERSION, made: new Date().toISOString(), migrations })}\n`;
  const has = new Set(
    (await db.query<{ name: string }>("select tablename as name from pg_tables where schemaname = 'public'")).map(
      (t) => t.name,
    ),
  );
  let rows = 0;
  const tables = TABLES.filter((t) => has.has(t.name));
  // What can change is read in one transaction; the log and the prints only grow, and come after.
  const first = await db.transaction(async (tx) => {
    const lines: string[] = [];
    for (const t of tables.filter((each) => !each.later)) for await (const page of pagesOf(tx, t)) lines.push(...page);
    const [{ last }] = await tx.query<{ last: string | null }>("select max(id)::text as last from job_edit");
    return { lines, last: last ?? "0" };
  });
  for (const line of first.lines) {
    rows++;
    yield line;
  }
  for (const t of tables.filter((each) => each.later))
    for await (const page of pagesOf(db, t, t.name === "job_edit" ? `id <= ${Number(first.last)}` : "true")) {
      rows += page.length;
      yield page.join("");
    }
  yield `end\t${rows}\n`;
}

async function* pagesOf(db: Database, t: (typeof TABLES)[number], where = "true"): AsyncGenerator<string[]> {
  for (let offset = 0; ; offset += t.page) {
    const rows = await db.query<{ row: string }>(
      `select to_jsonb(t)::text as row from ${t.name} t where ${where} order by ${t.key} limit ${t.page} offset ${offset}`,
    );
    if (rows.length) yield rows.map((r) => `${t.name}\t${r.row}\n`);
    if (rows.length < t.page) return;
  }
}

/**
 * Puts a kept copy in place of everything the database holds, or nothing at all: one transaction.
 * @returns how many rows were put back, or what is wrong with the copy
 */
export async function putBack(db: Database, file: string): Promise<Result<number>> {
  if (!existsSync(file)) return fail(problems.noCopy(path.basename(file)));
  try {
    return ok(await db.transaction((tx) => refill(tx, file)));
  } catch (e) {
    if (e instanceof CopyAtFault) return fail(e.problem);
    if (isZip(e)) return fail(problems.copyBroken(path.basename(file)));
    throw e;
  }
}

/** Thrown inside the transaction so that nothing of it stays. */
class CopyAtFault extends Error {
  constructor(readonly problem: ReturnType<typeof problems.copyBroken>) {
    super(problem.message);
  }
}
const isZip = (e: unknown): boolean => /^(Z_|ERR_)/.test(String((e as { code?: unknown }).code ?? ""));

async function refill(tx: Database, file: string): Promise<number> {
  const broken = () => new CopyAtFault(problems.copyBroken(path.basename(file)));
  const seen = await revisionsOf(tx);
  let head: Head | null = null;
  let rows = 0;
  let end: number | null = null;
  for await (const line of linesIn(file)) {
    if (head === null) {
      head = headOf(line);
      if (!head) throw broken();
      const known = await migrationNames();
      if (head.migrations.some((m) => !known.includes(m)))
        throw new CopyAtFault(problems.copyIsNewer(path.basename(file)));
      await tx.script("drop schema public cascade; create schema public");
      await migrate(tx, head.migrations);
      continue;
    }
    const [table, row] = [line.slice(0, line.indexOf("\t")), line.slice(line.indexOf("\t") + 1)];
    if (table === "end") {
      end = Number(row);
      continue;
    }
    if (!TABLES.some((t) => t.name === table)) throw broken();
    rows++;
    await tx.query(
      `insert into ${table} overriding system value select * from jsonb_populate_record(null::${table}, $1::text::jsonb)`,
      [row],
    );
  }
  // A copy that was cut off has no last line, or fewer rows than it says.
  if (end !== rows) throw broken();
  await tx.query(
    "select setval(pg_get_serial_sequence('job_edit', 'id'), (select coalesce(max(id), 0) + 1 from job_edit), false)",
  );
  await migrate(tx);
  // A window that has a later state open saves from its revision: no job comes to that number a second time.
  for (const { id, revision } of seen)
    await tx.query("update job set revision = $2 where id = $1 and revision < $3", [id, revision + 1, revision]);
  return rows;
}

/** The revision of every job that is replaced; none in an empty folder. */
async function revisionsOf(tx: Database): Promise<{ id: string; revision: number }[]> {
  const done = await migrationsDone(tx);
  return done.length ? tx.query<{ id: string; revision: number }>("select id, revision from job") : [];
}

interface Head {
  migrations: string[];
}
function headOf(line: string): Head | null {
  try {
    const head = JSON.parse(line) as { form?: unknown; version?: unknown; migrations?: unknown };
    const fits = head.form === FORM && head.version === FORM_VERSION && Array.isArray(head.migrations);
    return fits ? { migrations: head.migrations as string[] } : null;
  } catch {
    return null;
  }
}

async function* linesIn(file: string): AsyncGenerator<string> {
  const zipped = createReadStream(file);
  const text = zipped.pipe(createGunzip());
  zipped.on("error", (e) => text.destroy(e));
  const failed = new Promise<never>((_, reject) => text.once("error", reject));
  failed.catch(() => undefined);
  const lines = createInterface({ input: text, crlfDelay: Infinity })[Symbol.asyncIterator]();
  for (;;) {
    const next = await Promise.race([lines.next(), failed]);
    if (next.done) return;
    if (next.value) yield next.value;
  }
}

/** Whether a day has gone by since the last copy that was made for any reason. */
export async function copyIsDue(folder: string, now = Date.now()): Promise<boolean> {
  const [last] = await listCopies(folder);
  return !last || now - Date.parse(last.at) > DAY_MS;
}
const DAY_MS = 24 * 3600 * 1000;
