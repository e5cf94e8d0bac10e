import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, modelCurrent, visit } from './screen.js';
import { startServer, type RunningServer } from './server.js';

let server: RunningServer;

// Bots are taught many times over.
test.describe.configure({ timeout: 300_000 });

test.beforeAll(async () => {
  server = await startServer('demo');
});

test.afterAll(() => server.remove());

const open = (page: Page, show: string) =>
  visit(page, `${server.url}/bots/2/prove/trials?show=${encodeURIComponent(show)}`);

async function setNumber(page: Page, label: string, value: string) {
  await page.getByLabel(label, { exact: true }).fill(value);
  await page.getByLabel(label, { exact: true }).press('Tab');
}

test('a bot is cross-validated, and told whether more utterances would help', async ({ page }) => {
  await visit(page, `${server.url}/bots/2/prove`);
  await page.getByRole('link', { name: 'Trials' }).click();
  await expect(page.getByText('Not tried yet.')).toBeVisible();
  await setNumber(page, 'Repeats', '1');
  await page.getByRole('button', { name: 'Run', exact: true }).click();
  await expect(page.getByText(/Of 100 utterances \d\d\.\d are read rightly/)).toBeVisible({ timeout: 120_000 });
  await expect(page.getByRole('region', { name: 'Intents, the worst first' }).getByRole('row')).toHaveCount(18);
  await expectAccessible(page);

  await page.getByRole('link', { name: 'Learning curve' }).click();
  await page.getByRole('button', { name: 'Run', exact: true }).click();
  await expect(page.getByRole('img', { name: /Accuracy by utterances of an intent/ })).toBeVisible({
    timeout: 180_000,
  });
  await expectAccessible(page);
});

test('simulated customers come for its forms; one is opened in Try and kept', async ({ page }) => {
  await open(page, 'customers');
  await setNumber(page, 'Conversations', '12');
  await page.getByRole('button', { name: 'Run', exact: true }).click();
  await expect(page.getByText(/of 12 customers\s+got what they came for/)).toBeVisible({ timeout: 120_000 });
  await expect(page.locator('[data-row=chatty]')).toContainText('of 2');
  await page.getByLabel('Which conversations').selectOption('all');
  const first = page.getByRole('list', { name: 'Conversations' }).locator('details').first();
  await first.locator('summary').click();
  const words = (await first.locator('.customer').first().textContent())!;
  await first.getByRole('button', { name: 'Keep as a walkthrough' }).click();
  await expect(page.getByText('Kept as a walkthrough')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Walkthroughs', exact: true }).click();
  await modelCurrent(page);
  await expect(page.getByRole('row', { name: /cooperative customer 0/ })).toContainText('passes', { timeout: 60_000 });
  await expectAccessible(page);

  await open(page, 'customers');
  await page.getByLabel('Which conversations').selectOption('all');
  await page.getByRole('list', { name: 'Conversations' }).locator('summary').first().click();
  await page.getByRole('button', { name: 'Open in Try' }).click();
  await expect(page).toHaveURL(/\/try\?conversation=/, { timeout: 60_000 });
  await expect(page.getByText(words, { exact: true }).first()).toBeVisible();
});

test('noise is put into a test set, and the trial can be stopped', async ({ page, request }) => {
  const lines = ['text,intent', 'my bin was not emptied this morning,missed_bin', 'when is it glass,collection_day'];
  const made = await request.post(`${server.url}/api/bots/2/test-sets?name=few`, {
    data: lines.join('\n'),
    headers: { 'content-type': 'text/plain' },
  });
  const { id } = (await made.json()) as { id: number };
  await open(page, 'noise');
  await page.getByRole('button', { name: 'Run', exact: true }).click();
  await expect(page.getByText(/lines read/)).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText('Stopped. What was tried last is shown.')).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).click();
  await page.getByLabel('Test set', { exact: true }).selectOption(String(id));
  await page.getByRole('button', { name: 'Run', exact: true }).click();
  await expect(page.locator('[data-noise=story]')).toBeVisible({ timeout: 240_000 });
  await expect(page.locator('[data-noise]')).toHaveCount(7);
  await expectAccessible(page);
});

test('the bot as it was kept is tested beside the bot as it is, and a test runs by itself after edits', async ({
  page,
  request,
}) => {
  await visit(page, `${server.url}/bots/2/prove?show=runs`);
  await page.getByRole('button', { name: 'Keep the bot' }).click();
  await page.getByLabel('Name of the state').fill('before the change');
  await page.keyboard.press('Enter');
  const states = page.getByRole('region', { name: 'Kept states' });
  await expect(states.getByText('before the change', { exact: true })).toBeVisible();
  await page.getByText('Run after edits').click();
  await expect(page.getByLabel('Run after edits')).toBeChecked();
  const act = {
    do: 'addUtterances',
    intent: 'missed_bin',
    utterances: ['nobody emptied the wheelie thing on our lane'],
  };
  expect((await request.post(`${server.url}/api/bots/2/acts`, { data: act })).ok()).toBe(true);
  // Nobody pressed anything: the test runs once the bot was left alone.
  await expect(page.getByRole('link', { name: 'Runs (1)' })).toBeVisible({ timeout: 120_000 });
  await states.getByRole('button', { name: 'Run the set with it' }).click();
  await expect(page.getByText(/Of \d+ lines \d+ (was|were) mended/)).toBeVisible({ timeout: 120_000 });
  await visit(page, `${server.url}/bots/2/prove?show=runs`);
  await expect(page.getByRole('row', { name: /before the change/ })).toBeVisible();
  await visit(page, `${server.url}/bots/2/prove?show=curves`);
  await expect(page.getByRole('img', { name: /by the accept level/ })).toBeVisible();
  await expectAccessible(page);
});
