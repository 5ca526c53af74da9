import { expect, test } from "./test";
import { importCard, step } from "./helpers";

/** A PDF of so many objects, with their places in the file. */
function pdfOf(objects: string[]): Buffer {
  let text = "%PDF-1.4\n";
  const places = objects.map((body, i) => {
    const at = text.length;
    text += `${i + 1} 0 obj\n${body}\nendobj\n`;
    return at;
  });
  const table = places.map((at) => `${String(at).padStart(10, "0")} 00000 n \n`).join("");
  const end = text.length;
  text += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${table}`;
  return Buffer.from(`${text}trailer\n<< /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${end}\n%%EOF`);
}
const stream = (dictionary: string, body: string) =>
  `<< ${dictionary} /Length ${body.length} >>\nstream\n${body}\nendstream`;
const resources = (form: number) => `/Resources << /XObject << /F ${form} 0 R >> >>`;

/** A page that draws a form that draws one twenty times that draws another twenty times, so deep. */
function nested(deep: number): Buffer {
  const form = (level: number) =>
    level === deep
      ? stream("/Type /XObject /Subtype /Form /BBox [0 0 100 100]", "0 0 m 90 90 l S")
      : stream(`/Type /XObject /Subtype /Form /BBox [0 0 100 100] ${resources(5 + level)}`, "/F Do ".repeat(20));
  return pdfOf([
    "<< /Type /Catalog /Pages 2 0 R >>",
    "<< /Type /Pages /Kids [3 0 R] /Count 1 >>",
    `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 100 100] ${resources(5)} /Contents 4 0 R >>`,
    stream("", "/F Do"),
    ...Array.from({ length: deep }, (_, i) => form(i + 1)),
  ]);
}

test("a page of sixty million strokes is refused in seconds, and the page is never held up", async ({ page }) => {
  await importCard(page, 'JOB "Deep print"\nUNIT mm\nLEAVE BLOCK 60 X 40 X 20\n');
  await step(page, "Print");
  const put = (name: string, buffer: Buffer) =>
    page.getByLabel("Picture of a print").setInputFiles({ name, mimeType: "application/pdf", buffer });
  const deep = nested(7);
  expect(deep.length).toBeLessThan(4000);
  await put("deep.pdf", deep);
  const began = Date.now();
  const line = page.getByLabel("Next balloon");
  await line.fill("⌀12 H7");
  await line.press("Enter");
  await expect(page.locator('[data-balloon="1"]')).toContainText("⌀12 H7");
  expect(Date.now() - began).toBeLessThan(8000);
  await expect(page.getByText(/more lines than can be drawn/)).toBeVisible();
  // The same, only not so deep, is a page like any other.
  await put("shallow.pdf", nested(2));
  await expect(page.getByTestId("print-picture")).toBeVisible();
});
