import { expect, test } from "./test";
import { importCard, saved, step } from "./helpers";

const CARD = `JOB "Shop figures" REV A
UNIT mm
#1 20 ±.1
LEAVE BLOCK 60 X 40 X 20
CUT ⌀5 THRU AT -10,0
CUT ⌀6 DEEP 4 AT (#1 - 10),0 ON BOTTOM
SETUP 10 MILL UP TOP HOLD VISE GRIP 5 ACROSS Y ROWS 1 2
SETUP 20 MILL UP BOTTOM HOLD VISE GRIP 5 ACROSS Y ROWS 1 3
`;

test("the shop sets its own figures, and its jobs are judged by them", async ({ page, context }) => {
  await importCard(page, CARD);
  await saved(page);
  const job = page.url();
  await step(page, "Hold");
  await page.getByRole("button", { name: /^Setup 20/ }).click();
  await expect(page.getByText(/a turn-over costs ±0.08 in this shop/).first()).toBeVisible();

  await page.getByTitle("back to the shelf").click();
  await page.getByRole("link", { name: "The shop’s figures" }).click();
  const cost = page.getByRole("textbox", { name: "what a turn-over costs" });
  // What is no figure stays as it was typed, says so, and is not taken.
  await cost.fill("little");
  await cost.press("Enter");
  await expect(page.getByText("nothing is named little")).toBeVisible();
  await expect(cost).toHaveValue("little");
  await cost.fill("0.11");
  await cost.press("Enter");
  await expect(page.getByRole("button", { name: "what a turn-over costs as it usually is" })).toBeVisible();
  await expect(page.getByRole("status")).toHaveText("kept");
  // In inches it is the same figure.
  await page.getByText("inches", { exact: true }).click();
  await expect(cost).toHaveValue(".00433");
  await page.getByText("millimetres", { exact: true }).click();
  await expect(cost).toHaveValue("0.11");
  // Undone and done again.
  await page.getByRole("button", { name: "undo" }).click();
  await expect(cost).toHaveValue("0.08");
  await page.getByRole("button", { name: "redo" }).click();
  await expect(cost).toHaveValue("0.11");
  await expect(page.getByRole("status")).toHaveText("kept");

  // Another window that has not seen a change sets another figure: both are kept, and it shows both.
  const other = await context.newPage();
  await other.goto("/shop");
  await expect(other.getByRole("textbox", { name: "thin wall" })).toHaveValue("0.8");
  await page.getByRole("textbox", { name: "thin floor" }).fill("1.5");
  await page.getByRole("textbox", { name: "thin floor" }).press("Enter");
  await expect(page.getByRole("button", { name: "thin floor as it usually is" })).toBeVisible();
  await expect(page.getByRole("status")).toHaveText("kept");
  await other.getByRole("textbox", { name: "thin wall" }).fill("1");
  await other.getByRole("textbox", { name: "thin wall" }).press("Enter");
  await expect(other.getByRole("textbox", { name: "thin floor" })).toHaveValue("1.5");
  await expect(other.getByRole("textbox", { name: "thin wall" })).toHaveValue("1");
  await expect(other.getByRole("status")).toHaveText("kept");
  await other.close();

  await page.getByText("what fixtures are proposed with").click();
  await page.getByRole("button", { name: "one more blank" }).click();
  const name = page.getByRole("textbox", { name: "Name of blank 9" });
  await name.fill("200 x 60 x 70");
  await name.press("Enter");
  await expect(page.getByText("this name is there already")).toBeVisible();
  await name.press("Escape");
  await page.getByRole("button", { name: "the usual ones" }).click();
  await expect(page.getByRole("textbox", { name: "Name of blank 9" })).toHaveCount(0);
  await expect(page.getByRole("status")).toHaveText("kept");

  await page.goto(job);
  await step(page, "Hold");
  await page.getByRole("button", { name: /^Setup 20/ }).click();
  await expect(page.getByText(/a turn-over costs ±0.11 in this shop/).first()).toBeVisible();

  // As it was for the tests that come after.
  await page.goto("/shop");
  for (const what of ["what a turn-over costs", "thin floor"]) {
    await page.getByRole("button", { name: `${what} as it usually is` }).click();
    await expect(page.getByRole("button", { name: `${what} as it usually is` })).toHaveCount(0);
  }
  await expect(page.getByRole("status")).toHaveText("kept");
});
