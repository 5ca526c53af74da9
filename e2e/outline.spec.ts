import { expect, test } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { newJob, row, saved, type, volume } from './helpers';

test('an outline is walked by keyboard, said what is free, tied down, and carried up', async ({ page }) => {
  await newJob(page, 'Walked plate', 'millimetre', 'aluminium 6061');
  await page.getByRole('button', { name: '+ outline' }).click();
  const name = page.getByLabel('Name of the outline');
  await name.fill('plate');
  await name.press('Enter');
  const line = page.getByLabel('Next line of the outline');
  const state = page.getByTestId('outline-state');
  for (const l of ['START 0,0', 'LINE TO X 100', 'LINE TO Y 60', 'LINE TO X 70', 'LINE TO Y 30', 'ARC TO X 40 CW TANGENT', 'LINE TANGENT TO Y 60', 'LINE TO X 0', 'CLOSE']) {
    await line.fill(l);
    await line.press('Enter');
    await expect(line).toHaveValue('');
  }
  await expect(state).toContainText('1 free, in pencil: the end of step 5 (P5) is free along Y');
  // Wrong lines say where they are wrong, and stay as they were typed.
  await line.fill('ARC TO 3 R 4');
  await expect(page.getByText(/at character 10: .*expected: a comma and y/)).toBeVisible();
  await line.fill('PARALLEL 1 99');
  await line.press('Enter');
  await expect(page.getByText('there is no step 99')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await line.fill('LENGTH 1 104');
  await line.press('Enter');
  await expect(state).toContainText('these cannot hold together');
  await page.getByLabel('drop line LENGTH 1 104').click();
  await expect(state).toContainText('1 free');
  await page.getByRole('button', { name: 'tie down what is left' }).click();
  await expect(state).toContainText('fully located, in ink');
  await page.keyboard.press('Control+z');
  await line.fill('VERTICAL 6');
  await line.press('Enter');
  await expect(state).toContainText('fully located, in ink');
  await expect(page.getByText('4746.57 mm²')).toBeVisible();
  await line.fill('ROUND 40 AT P1 P2');
  await line.press('Enter');
  await expect(page.getByText(/the largest that does is 30 mm/)).toBeVisible();
  await page.getByRole('textbox', { name: 'line ROUND 40 AT P1 P2' }).fill('ROUND 8 AT P1 P2');
  await page.getByRole('textbox', { name: 'line ROUND 40 AT P1 P2' }).press('Enter');
  await expect(page.getByText('4719.10 mm²')).toBeVisible();
  await page.getByRole('button', { name: 'corners off' }).click();
  await expect(page.getByText('4746.57 mm²')).toBeVisible();
  await page.getByRole('button', { name: 'corners on' }).click();
  const dxf = page.waitForEvent('download');
  await page.getByRole('button', { name: 'save DXF' }).click();
  const file = readFileSync(await (await dxf).path());
  await page.getByRole('button', { name: 'back to the route card' }).click();
  await type(page, 'LEAVE PRISM "plate" X 10', 'POCKET "plate" DEEP 2 AT 200,0');
  await expect(volume(page)).toHaveText('47.191 cm³');
  // Used outlines cannot go; a new name is taken over in the rows.
  await page.getByRole('button', { name: 'plate', exact: true }).click();
  await page.getByRole('button', { name: 'delete', exact: true }).click();
  await expect(page.getByText('"plate" is used by row 1, row 2')).toBeVisible();
  await name.fill('base');
  await name.press('Enter');
  await page.getByRole('button', { name: 'back to the route card' }).click();
  await expect(row(page, 1)).toContainText('PRISM "base" X 10');
  // The DXF comes back as an outline; what is none is refused.
  await page.getByLabel('DXF with outlines').setInputFiles({ name: 'plate.dxf', mimeType: 'application/dxf', buffer: file });
  await expect(page.getByRole('group', { name: 'Outlines' }).getByRole('button', { name: 'plate' })).toBeVisible();
  await page.getByLabel('DXF with outlines').setInputFiles({ name: 'bad.dxf', mimeType: 'application/dxf', buffer: Buffer.from('nothing') });
  await expect(page.getByText(/0 outlines read/)).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(row(page, 1)).toContainText('PRISM "base" X 10');
  await expect(volume(page)).toHaveText('47.191 cm³');
});

test('places are picked on the stage, snapped to what is there', async ({ page }) => {
  await newJob(page, 'Picked outline', 'millimetre', '');
  await page.getByRole('button', { name: '+ outline' }).click();
  const line = page.getByLabel('Next line of the outline');
  await line.fill('RECTANGLE 40 X 20');
  await line.press('Enter');
  await page.waitForTimeout(900);
  const stage = (await page.getByTestId('stage').boundingBox())!;
  // The middle of the stage is the middle of the rectangle: zero.
  await page.mouse.click(stage.x + stage.width / 2 + 3, stage.y + stage.height / 2 - 2);
  await expect(line).toHaveValue('LINE TO 0,0');
  await line.fill('CIRCLE ⌀6 AT');
  await page.mouse.click(stage.x + stage.width / 2 + 3, stage.y + stage.height / 2 - 2);
  await expect(line).toHaveValue('CIRCLE ⌀6 AT 0,0');
  await line.press('Enter');
  await expect(page.getByText('771.73 mm²')).toBeVisible();
});
