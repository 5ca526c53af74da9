import { evaluate } from "@/core/evaluate/evaluate";
import { usualShop } from "@/core/tables";
import { jobOf } from "@/core/job";
import { mm } from "../../tests/helpers/card";
import { setUp } from "../../tests/setups/helpers";
import { exportJob } from "./exportJob";
import { setupFile } from "./setupFile";

const card = mm(
  "STOCK PLATE 62 X 42 X 20",
  "LEAVE BLOCK 60 X 40 X 20",
  "CUT POCKET 30 X 20 R 5 DEEP 6",
  "SETUP 10 MILL UP TOP HOLD VISE GRIP 6 ACROSS Y ROWS 1-2",
  "SETUP 20 MILL UP BOTTOM HOLD VISE GRIP 6 ACROSS Y ROWS 1",
);

describe("files of one setup", () => {
  it("are its STEP, its paths and its sheet; a setup that is not there has none", async () => {
    const { document, parts, kernel } = await setUp(card);
    const setup = setupFile(document, parts, 20, kernel, usualShop);
    expect(setup!.assembly[0].name).toBe(parts[0].name);
    const evaluation = await evaluate(jobOf(document), kernel);
    for (const kind of ["step", "dxf", "pdf"] as const)
      expect((await exportJob(kind, document, evaluation, kernel, { setup: setup! })).ok).toBe(true);
    expect(setupFile(document, parts, 30, kernel, usualShop)).toBeNull();
  });
  it("are never machine words with another zero and another side up than the setup has", async () => {
    const { document, parts, kernel } = await setUp(card);
    const evaluation = await evaluate(jobOf(document), kernel);
    for (const op of [10, 20]) {
      const made = await exportJob("nc", document, evaluation, kernel, {
        setup: setupFile(document, parts, op, kernel, usualShop)!,
      });
      expect(made).toMatchObject({ ok: false, problems: [{ code: "io.noWordsOfSetup" }] });
    }
  });
});
