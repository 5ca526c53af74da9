// The shop's own figures on the server: kept, told apart from what others kept meanwhile, and what rests on them.
import { rmSync } from "node:fs";
import { noSettings, shopMark, shopSettingsSchema } from "@/core/tables";
import { closeDatabase, database } from "@/server/database";
import { createJob } from "@/server/jobs";
import { keepShopSettings, shopSettings } from "@/server/shop";
import { keepStanding, readStanding } from "@/server/standing";
import { shelfFolder } from "../helpers/shelfFolder";

let dir: string;
beforeAll(async () => {
  dir = await shelfFolder("sgorbia-shop-");
  process.env.SGORBIA_DATA = dir;
  process.env.SGORBIA_DEMO = "no";
});
afterAll(async () => {
  await closeDatabase();
  rmSync(dir, { recursive: true, force: true });
});

const turnOver = (text: string) => shopSettingsSchema.parse({ limits: { turnOver: { text, unit: "mm" } } });

describe("the shop's figures", () => {
  it("are nothing at first, and then what was kept", async () => {
    expect(await shopSettings()).toEqual(noSettings);
    expect((await keepShopSettings(turnOver("0.05"), "")).ok).toBe(true);
    expect(await shopSettings()).toEqual(turnOver("0.05"));
  });
  it("are not overwritten by a window that has not seen them", async () => {
    const now = await shopSettings();
    expect(await keepShopSettings(turnOver("0.2"), "")).toMatchObject({
      ok: false,
      problems: [{ code: "server.shopMovedOn" }],
    });
    expect(await shopSettings()).toEqual(now);
    expect((await keepShopSettings(turnOver("0.2"), shopMark(now))).ok).toBe(true);
  });
  it("take what was worked out by others with them", async () => {
    const { id } = await createJob("Float arm", "mm", "brass");
    await keepStanding(id, 1, "e1", new Uint8Array([1, 2, 3]));
    expect(await readStanding(id, "e1")).not.toBeNull();
    await keepShopSettings(turnOver("0.3"), shopMark(await shopSettings()));
    expect(await readStanding(id, "e1")).toBeNull();
  });
  it("that cannot be read any more count as not set", async () => {
    const db = await database();
    await db.query(`update shop_setting set value = '{"limits":{"gone":1}}' where name = 'figures'`);
    expect(await shopSettings()).toEqual(noSettings);
  });
});
