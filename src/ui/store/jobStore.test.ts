import { jest } from '@jest/globals';
import { apply } from 'mutative';
import { emptyJob, type Job, type StoredJob } from '@/core/job';
import { readRowLine } from '@/core/callout';
import { rowNames } from '@/core/job';
import { useJob } from './jobStore';

/** An answer read in this test's own realm, as a page reads it in its own. */
const reply = (body: unknown, status = 200) => ({ ok: status < 400, status, json: async () => JSON.parse(JSON.stringify(body)) as unknown }) as Response;

/** A server that keeps one job, and can be away. */
class FakeServer {
  job: Job = emptyJob('Lid', 'mm', 'brass');
  revision = 1;
  away = false;
  puts = 0;
  refuse = '';
  fetch = async (_url: string, init?: RequestInit): Promise<Response> => {
    if (this.away) throw new TypeError('failed to fetch');
    this.puts++;
    const { base, patches } = JSON.parse(String(init?.body)) as { base: number; patches: never };
    if (this.refuse) return reply({ problems: [{ message: this.refuse }] }, 422);
    if (base !== this.revision) return reply(this.stored(), 409);
    this.job = apply(this.job, patches);
    this.revision++;
    return reply({ revision: this.revision });
  };
  stored = (): StoredJob => ({ id: 'j', job: this.job, revision: this.revision, changedAt: '2026-11-25T00:00:00Z' });
}

let server: FakeServer;
const row = (text: string, id: string) => {
  const r = readRowLine(text, rowNames([]), id);
  if (!r.ok) throw new Error(r.error.message);
  return r.row;
};
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const until = async (test: () => boolean) => {
  for (let i = 0; i < 100 && !test(); i++) await wait(50);
  expect(test()).toBe(true);
};
const s = () => useJob.getState();
const add = (id: string) => s().edit([{ edit: 'addRows', rows: [row('LEAVE BLOCK 1 X 1 X 1', id)] }], 'row');

beforeEach(async () => {
  server = new FakeServer();
  globalThis.fetch = jest.fn(server.fetch as never) as never;
  await s().open(server.stored());
});
afterEach(async () => {
  s().close();
  await wait(20);
});

describe('the open job', () => {
  it('saves what was typed within half a second, several edits in one go', async () => {
    add('a');
    add('b');
    expect(server.puts).toBe(0);
    await until(() => s().save === 'saved' && server.revision === 2);
    expect(server.puts).toBe(1);
    expect(server.job.rows.map((r) => r.id)).toEqual(['a', 'b']);
    expect(s().unsent).toHaveLength(0);
  });

  it('undoes and does again, a hundred steps and more', async () => {
    for (let i = 0; i < 150; i++) add(`r${i}`);
    for (let i = 0; i < 150; i++) s().undo();
    expect(s().job!.rows).toHaveLength(0);
    s().undo();
    for (let i = 0; i < 150; i++) s().redo();
    expect(s().job!.rows).toHaveLength(150);
    expect(s().future).toHaveLength(0);
    s().undo();
    add('fresh');
    expect(s().future).toHaveLength(0);
    await until(() => s().save === 'saved' && s().unsent.length === 0);
    expect(server.job).toEqual(s().job);
  });

  it('goes on while the server is away, and sends everything when it is back', async () => {
    server.away = true;
    add('a');
    await until(() => s().save === 'away');
    add('b');
    expect(s().job!.rows).toHaveLength(2);
    server.away = false;
    await until(() => s().save === 'saved');
    expect(server.job.rows).toHaveLength(2);
  });

  it('does not overwrite another window: the user keeps this job', async () => {
    server.job = { ...server.job, name: 'changed there' };
    server.revision = 5;
    add('a');
    await until(() => s().save === 'conflict');
    expect(server.job.rows).toHaveLength(0);
    expect(s().conflict?.revision).toBe(5);
    s().settle('mine');
    await until(() => s().save === 'saved' && server.job.rows.length === 1);
    expect(server.job.name).toBe('Lid');
  });

  it('or takes the other window\'s', async () => {
    server.job = { ...server.job, name: 'changed there' };
    server.revision = 5;
    add('a');
    await until(() => s().save === 'conflict');
    s().settle('theirs');
    expect(s().job).toMatchObject({ name: 'changed there', rows: [] });
    expect(s().save).toBe('saved');
  });

  it('says what the server refused, and keeps what was typed', async () => {
    server.refuse = 'the document would be broken';
    add('a');
    await until(() => s().save === 'refused');
    expect(s().saveMessage).toContain('broken');
    expect(s().job!.rows).toHaveLength(1);
    server.refuse = '';
    add('b');
    await until(() => s().save === 'saved');
    expect(server.job.rows).toHaveLength(2);
  });

  it('tells why an edit cannot be done', () => {
    add('a');
    expect(add('a')).toMatch(/already/);
    expect(s().edit([{ edit: 'deleteRow', id: 'nobody' }])).toBe('this row is gone');
    expect(s().edit([])).toBeNull();
    expect(s().past).toHaveLength(1);
  });
});
