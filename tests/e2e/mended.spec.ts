import { randomUUID } from 'node:crypto';
import { expect, look, shelve, test } from './bench';

test('what was written down is mended later: bad drills, the inspection, a sitting', async ({
  page,
  request,
}) => {
  const id = await shelve(request, 'Mended');
  await page.goto(`/canvas/${id}/checkin`);
  await page.getByText(/Bad drills 3\.0 %/).click();
  await page.getByLabel('Thrown out').fill('34');
  await page.getByLabel('of drills').fill('80');
  await page.getByRole('button', { name: 'Record' }).click();
  await expect(page.getByText(/Bad drills 14\.3 %/)).toBeVisible();
  const record = page.getByRole('listitem').filter({ hasText: '34 of 80' });
  await record.getByRole('button', { name: 'Edit' }).click();
  // The form that records more has the same two names; the one in the list comes after it.
  await page.getByLabel('of drills').last().fill('800');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/Bad drills 4\.0 %, from 1,000 drills/)).toBeVisible();
  await page
    .getByRole('listitem')
    .filter({ hasText: '34 of 800' })
    .getByRole('button', { name: 'Remove' })
    .click();
  await expect(page.getByText(/Bad drills 3\.0 %/)).toBeVisible();
  await look(page);
  await page.getByRole('button', { name: 'Bring back' }).click();
  await expect(page.getByText(/Bad drills 4\.0 %/)).toBeVisible();

  await page.goto(`/canvas/${id}/checkin/inspection`);
  await page.getByLabel('Note').fill('Smudget at the edge');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await page.getByRole('button', { name: /^Edit / }).click();
  await expect(page.getByLabel('Note')).toHaveValue('Smudget at the edge');
  await page.getByLabel('Note').fill('Smudged at the edge');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Smudged at the edge')).toBeVisible();
  await page.getByRole('button', { name: /^Delete / }).click();
  await look(page);
  await page.getByText('1 deleted note, kept for 30 days').click();
  await look(page);
  await page.getByRole('button', { name: /^Bring back/ }).click();
  await expect(page.getByRole('article')).toContainText('Smudged at the edge');
  await page.reload();
  await expect(page.getByRole('article')).toContainText('Smudged at the edge');

  const sitting = randomUUID();
  await request.post(`/api/canvases/${id}/sittings`, { data: { id: sitting } });
  await request.post(`/api/canvases/${id}/sittings/${sitting}/end`, { data: { note: 'tired' } });
  await page.goto(`/canvas/${id}/progress`);
  await page.getByRole('button', { name: 'Sittings', exact: true }).click();
  await page.getByRole('button', { name: /^Edit the sitting of/ }).click();
  await page.getByLabel('Began').fill('2026-01-05T19:00');
  await page.getByLabel('Ended').fill('2026-01-05T18:00');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('The sitting must end after it begins.')).toBeVisible();
  await page.getByLabel('Ended').fill('2026-01-05T20:15');
  await page.getByRole('button', { name: 'Save' }).click();
  const sittings = page.getByRole('table', { name: /^Sittings/ });
  await expect(sittings.getByRole('row').nth(1)).toContainText('75');
  await page.getByRole('button', { name: /^Edit the sitting of/ }).click();
  await page.getByRole('button', { name: 'Remove' }).click();
  await look(page);
  await page.getByText('1 removed sitting').click();
  await look(page);
  await page.getByRole('button', { name: /^Bring back/ }).click();
  await expect(sittings.getByRole('row').nth(1)).toContainText('75');
});

test('leftovers and cases are mended, deleted and brought back', async ({ page }) => {
  await page.goto('/stash');
  await page.getByLabel('Colour code').fill('31O');
  await page.getByLabel('Drills left over').fill('120');
  await page.getByRole('button', { name: 'Add to the stash' }).click();
  await page.getByRole('button', { name: 'Edit 31O' }).click();
  await page.getByLabel('Colour code').fill('310');
  await page.getByLabel('Drills left over').fill('95');
  await page.getByRole('button', { name: 'Save' }).click();
  const row = page.getByRole('row').filter({ hasText: /^310/ });
  await expect(row).toContainText('95');
  await expect(page.getByText('25 drills of 310 taken from the stash')).toBeVisible();
  await page.getByRole('button', { name: 'Delete 310' }).click();
  await expect(row).toHaveCount(0);
  await page.getByText(/\d+ deleted colours?, kept for 30 days/).click();
  await page.getByRole('button', { name: 'Bring back 310' }).click();
  await expect(row).toContainText('95');

  await page.goto('/storage');
  await page.getByRole('button', { name: /^64 bottles/ }).click();
  await page.getByLabel('Name of the case').fill('Short-lived');
  await page.getByRole('button', { name: 'Save this case' }).click();
  await page.getByRole('button', { name: 'Redraw Short-lived' }).click();
  // The page is made anew with what was deleted; a list that is opened before is closed by that.
  const anew = page.waitForEvent('load');
  await page.getByRole('button', { name: 'Delete this case' }).click();
  await anew;
  await expect(page.getByRole('heading', { name: 'Short-lived' })).toHaveCount(0);
  await page.getByText(/\d+ deleted cases?, kept for 30 days/).click();
  await page.getByRole('button', { name: 'Bring back Short-lived' }).click();
  await expect(page.getByRole('heading', { name: 'Short-lived' })).toBeVisible();
});
