import { expect, type Locator, type Page } from "./test";

/** A new job through the dialog, and its empty bench. */
export async function newJob(page: Page, name: string, unit: "inch" | "millimetre", material: string): Promise<void> {
  await page.goto("/");
  await page.getByRole("button", { name: "New job" }).click();
  await expect(page.getByRole("button", { name: "Start" })).toBeDisabled();
  await page.getByText(unit, { exact: true }).click();
  await page.getByRole("combobox", { name: "Material" }).fill(material);
  await page.keyboard.press("Escape").catch(() => {});
  await page.getByLabel("Name of the part").fill(name);
  await page.getByRole("button", { name: "Start" }).click();
  // A job begins with its print; what follows here begins with its shape.
  await expect(page.getByLabel("Next balloon")).toBeVisible();
  await page
    .getByRole("navigation")
    .getByRole("button", { name: /^Shape/ })
    .click();
  await expect(page.getByLabel("Callout line")).toBeVisible();
}

/** Types rows into the callout line, one after the other. */
export async function type(page: Page, ...rows: string[]): Promise<void> {
  const line = page.getByLabel("Callout line");
  for (const row of rows) {
    await line.fill(row);
    await line.press("Enter");
    await expect(line).toHaveValue("");
  }
}

export const row = (page: Page, n: number) => page.locator(`[data-row="${n}"]`);
export const volume = (page: Page) => page.getByTestId("volume");
export const saved = (page: Page) => expect(page.getByRole("status").filter({ hasText: /^saved$/ })).toBeVisible();

/** Waits until the page answers at a control: it comes drawn, and what is done before then is lost. */
const taken = (page: Page, control: string) =>
  page.waitForFunction(
    (at) => Object.keys(document.querySelector(at) ?? {}).some((key) => key.startsWith("__reactProps")),
    control,
  );

/** Imports card text through the shelf's own file picker. */
export async function importCard(page: Page, text: string, name = "part.card"): Promise<void> {
  await page.goto("/");
  await taken(page, 'input[type="file"]');
  await page.getByLabel("File to import").setInputFiles({ name, mimeType: "text/plain", buffer: Buffer.from(text) });
}

/** Takes an option of a choice by its words, as a person does: opens the list and presses it. */
export async function choose(field: Locator, option: string): Promise<void> {
  await field.click({ force: true });
  const open = field.page().locator(".ant-select-dropdown:not(.ant-select-dropdown-hidden)");
  await open.locator(".ant-select-item-option").filter({ hasText: option }).first().click();
  await expect(open).toHaveCount(0);
}

/** Goes to a step by the ruler of steps. */
export const step = (page: Page, name: string) =>
  page
    .getByRole("navigation")
    .getByRole("button", { name: new RegExp(`^${name}`) })
    .click();
