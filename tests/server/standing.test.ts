import { rmSync } from "node:fs";
import { emptyMesh, joinMeshes } from "@/kernel/meshing";
import { packStanding, unpackStanding } from "@/core/evaluate/standing";
import { applyEdits } from "@/core/job";
import { closeDatabase, database } from "@/server/database";
import { createJob, listJobs, saveEdits, setDeleted } from "@/server/jobs";
import { keepSummary } from "@/server/release";
import { summarySchema } from "@/io/summary";
import { drawingSvg } from "@/io/svg";
import { v3 } from "@/core/geometry/vec";
import { keepStanding, MOST_STANDING, readStanding } from "@/server/standing";
import { shelfFolder } from "../helpers/shelfFolder";

let dir: string;
beforeAll(async () => {
  dir = await shelfFolder("sgorbia-standing-");
  process.env.SGORBIA_DATA = dir;
  process.env.SGORBIA_DEMO = "no";
});
afterAll(async () => {
  await closeDatabase();
  rmSync(dir, { recursive: true, force: true });
});

const bytes = (n: number) => new Uint8Array(n).map((_, i) => i % 251);

describe("what was computed of a job", () => {
  it("is there for the revision and the engine it was made with, and for no other", async () => {
    const { id, job } = await createJob("Float arm", "mm", "brass");
    expect(await readStanding(id, "e1")).toBeNull();
    expect((await keepStanding(id, 1, "e1", bytes(1000))).ok).toBe(true);
    expect(await readStanding(id, "e1")).toEqual(bytes(1000));
    expect(await readStanding(id, "e2")).toBeNull();
    const edit = applyEdits(job, [{ edit: "setHead", head: { revision: "B" } }]);
    if (!edit.ok) throw new Error("no edit");
    await saveEdits(id, 1, edit.value.patches);
    expect(await readStanding(id, "e1")).toBeNull();
    // What comes late, of a revision that has gone by, is not kept.
    expect((await keepStanding(id, 1, "e1", bytes(10))).ok).toBe(false);
    expect((await keepStanding(id, 2, "e2", bytes(20))).ok).toBe(true);
    expect(await readStanding(id, "e2")).toEqual(bytes(20));
  });
  it("goes with its job, and a size nobody needs is refused", async () => {
    const { id } = await createJob("Float arm", "mm", "brass");
    expect((await keepStanding(id, 1, "e1", bytes(MOST_STANDING + 1))).ok).toBe(false);
    await keepStanding(id, 1, "e1", bytes(10));
    await setDeleted(id, true);
    expect(await readStanding(id, "e1")).toBeNull();
    expect((await keepStanding("nobody", 1, "e1", bytes(10))).ok).toBe(false);
  });
  it("gives way, the oldest first, when all of it is more than is spared", async () => {
    const db = await database();
    const [old, recent] = [await createJob("Old", "mm", "brass"), await createJob("Recent", "mm", "brass")];
    await keepStanding(old.id, 1, "e1", bytes(10));
    // As if it were large and long ago.
    await db.query("update job_standing set size = 200000000, kept_at = now() - interval '1 day' where job_id = $1", [
      old.id,
    ]);
    await keepStanding(recent.id, 1, "e1", bytes(10));
    expect(await readStanding(old.id, "e1")).toBeNull();
    expect(await readStanding(recent.id, "e1")).toEqual(bytes(10));
  });
});

describe("what the shelf shows of a job", () => {
  const line = { points: [v3(0, 0, 0), v3(10, 5, 0)], hidden: false };
  const counts = {
    stops: 1,
    cautions: 0,
    notes: 0,
    failed: 0,
    proved: 2,
    off: 0,
    balloons: 3,
    checksOff: 0,
    checks: 1,
  };
  const summary = { picture: drawingSvg([line], { stroke: "currentColor", pixels: 260 }), ...counts };

  it("is kept as the page worked it out, for the revision it was worked out at", async () => {
    const { id, job } = await createJob("Float arm", "mm", "brass");
    const shown = async () => (await listJobs()).find((j) => j.id === id)!.summary;
    expect((await keepSummary(id, 1, summarySchema.parse(summary))).ok).toBe(true);
    expect(await shown()).toEqual(summary);
    const edit = applyEdits(job, [{ edit: "setHead", head: { revision: "B" } }]);
    if (!edit.ok) throw new Error("no edit");
    await saveEdits(id, 1, edit.value.patches);
    expect(await shown()).toBeNull();
    expect((await keepSummary(id, 1, summary)).ok).toBe(false);
    expect((await keepSummary("nobody", 1, summary)).ok).toBe(false);
    expect(await shown()).toBeNull();
  });
  it.each([
    '<svg onload="alert(1)"></svg>',
    "<svg ><script>alert(1)</script></svg>",
    '<svg viewBox="0 0 1 1"><path d="M0 0"/>words</svg>',
    '<svg viewBox="0 0 1 1"><path fill="url(https://tide.example)" d="M0 0"/></svg>',
    '<img src="x">',
    "",
  ])("holds nothing but a drawing: not %s", (picture) => {
    expect(summarySchema.safeParse({ ...summary, picture }).success).toBe(false);
  });
  it("is of a part, or of none yet", () => {
    expect(summarySchema.safeParse({ ...summary, picture: null }).success).toBe(true);
    expect(summarySchema.safeParse({ ...summary, stops: -1 }).success).toBe(false);
  });
});

describe("the packed form", () => {
  const face = {
    positions: new Float32Array([0, 0, 0, 1, 0, 0, 0, 1.5, 0]),
    normals: new Float32Array([0, 0, 1, 0, 0, 1, 0, 0, 1]),
    triangles: new Uint32Array([0, 1, 2]),
  };
  it("brings back maps, sets, endless numbers and the mesh as they were", async () => {
    const rest = { evaluated: { shapes: new Map([["a", { ok: true, value: [Infinity, -0.1, NaN] }]]), none: null } };
    const mesh = joinMeshes([face, face], new Float32Array([0, 0, 0, 1, 1, 1]));
    const back = await unpackStanding(await packStanding(rest, { key: "k", mesh } as { mesh: typeof mesh }));
    expect(back).toEqual({ ...rest, picture: { key: "k", mesh } });
  });
  it("takes a picture of nothing, and refuses what is not whole", async () => {
    const packed = await packStanding({ a: 1 }, { mesh: emptyMesh() });
    expect((await unpackStanding(packed)).picture.mesh.positions).toHaveLength(0);
    await expect(unpackStanding(packed.slice(0, packed.length - 9))).rejects.toThrow();
    await expect(unpackStanding(new Uint8Array([1, 2, 3]))).rejects.toThrow();
  });
});
