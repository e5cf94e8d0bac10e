import { expect, test } from '@playwright/test';
import { expectAccessible, modelCurrent, visit } from './screen.js';
import { startServer, type RunningServer } from './server.js';

let server: RunningServer;

test.beforeAll(async () => {
  server = await startServer('demo');
});

test.afterAll(() => server.remove());

test('before a test was run the gate is set by the utterances, each held out', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach`);
  await modelCurrent(page);
  await visit(page, `${server.url}/bots/1/gate`);
  await expect(page.getByRole('combobox', { name: 'Messages that the gate is set by' })).toHaveValue('utterances');
  await expect(page.getByText('customers’ messages tell more')).toBeVisible();
  await expect(page.getByText(/Of 100 messages like these/)).toBeVisible();
  await expectAccessible(page);
});

test('the borders are moved by keys, by the pointer and by typing, and the figures go along', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/prove`);
  await page.getByRole('button', { name: 'Run the test' }).first().click();
  await expect(page.locator('[data-figure=accuracy]')).toBeVisible({ timeout: 60_000 });
  await visit(page, `${server.url}/bots/1/gate`);
  const lines = async (consequence: string) =>
    Number(await page.locator(`[data-consequence="${consequence}"] td`).first().textContent());
  const accept = page.getByRole('slider', { name: 'The accept level', exact: true });
  const ask = page.getByRole('slider', { name: 'The ask level' });
  await expect(accept).toHaveAttribute('aria-valuenow', '0.88');
  await expect(page.locator('[data-consequence]')).toHaveCount(10);
  const before = await lines('accepted rightly');
  expect(before).toBeGreaterThan(100);

  await accept.focus();
  await page.keyboard.press('PageDown');
  await page.keyboard.press('PageDown');
  await page.keyboard.press('ArrowRight');
  await expect(accept).toHaveAttribute('aria-valuenow', '0.79');
  await expect.poll(() => lines('accepted rightly')).toBeGreaterThan(before);
  await expect(page.getByLabel('Accept level', { exact: true })).toHaveValue('0.79');

  // Dragged beyond the accept level, the ask level stops there.
  const from = (await ask.boundingBox())!;
  await page.mouse.move(from.x + from.width / 2, from.y + 60);
  await page.mouse.down();
  await page.mouse.move(from.x + 200, from.y + 60, { steps: 5 });
  await page.mouse.move(from.x + 900, from.y + 60, { steps: 5 });
  await expect(ask).toHaveAttribute('aria-valuenow', '0.79');
  await expect
    .poll(async () => (await lines('asked, right one offered')) + (await lines('asked out of scope')))
    .toBeLessThan(20);
  await page.mouse.up();

  const typed = page.getByLabel('Ask level', { exact: true });
  await typed.fill('0.95');
  await typed.press('Tab');
  await expect(page.getByText('From 0 to 0.79.')).toBeVisible();
  await typed.fill('0.2');
  await typed.press('Tab');
  await expect(ask).toHaveAttribute('aria-valuenow', '0.2');
  await modelCurrent(page);
  await page.reload();
  await expect(accept).toHaveAttribute('aria-valuenow', '0.79');
  await expect(ask).toHaveAttribute('aria-valuenow', '0.2');
  await expect(page.getByText('the bot has changed since')).toBeVisible();
});

test('costs lead to recommended levels, which can be taken and taken back', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/gate`);
  const wrong = page.getByLabel('Cost of a wrong act');
  await expect(wrong).toHaveValue('8');
  const mean = page.locator('[data-cost]');
  const cheaper = (await mean.textContent())!;
  await wrong.fill('40');
  await wrong.press('Tab');
  await expect(mean).not.toHaveText(cheaper);
  const recommended = page.locator('[data-recommended=cost]');
  const takeThem = recommended.getByRole('button', { name: 'Take the levels: costs least' });
  await expect(takeThem).toBeEnabled();
  await expect(recommended).toContainText('That saves');
  const now = Number(await mean.textContent());
  const accept = page.getByRole('slider', { name: 'The accept level', exact: true });
  const level = String(Number(/Accept from ([\d.]+)/.exec((await recommended.textContent())!)![1]));
  await takeThem.click();
  await expect(accept).toHaveAttribute('aria-valuenow', level);
  await expect.poll(async () => Number(await mean.textContent())).toBeLessThan(now);
  const lead = page.getByRole('slider', { name: 'How far the first intent must lead' });
  await lead.focus();
  await page.keyboard.press('PageUp');
  await expect(page.getByLabel('Lead', { exact: true })).toHaveValue('0.15');
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click();
  await expect(lead).toHaveAttribute('aria-valuenow', '0.1');
  await expect(page.getByText('No other levels cost less on these messages.')).toBeVisible();
  await expect(page.getByRole('link', { name: /^Gate/ })).toContainText('% asked');
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click();
  await expect(accept).toHaveAttribute('aria-valuenow', '0.79');
  await expectAccessible(page);
});

test('what an intent does sets its level, and one can have its own', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/gate`);
  const row = (intent: string) => page.locator(`[data-intent=${intent}]`);
  await expect(row('order_plants')).toContainText('read back');
  await expect(row('plant_care')).toContainText('is answered');
  const accepted = async (intent: string) => Number(await row(intent).locator('td').nth(2).textContent());
  const [form, reply] = [await accepted('order_plants'), await accepted('plant_care')];
  const forms = page.getByLabel('Accept level of forms that are read back', { exact: true });
  await expect(forms).toHaveValue('');
  await forms.fill('0.4');
  await forms.press('Tab');
  await expect(page.getByRole('slider', { name: 'The accept level of forms' })).toHaveAttribute('aria-valuenow', '0.4');
  await expect.poll(() => accepted('order_plants')).toBeGreaterThan(form);
  expect(await accepted('plant_care')).toBe(reply);

  const own = page.getByLabel('Accept level of order_plants');
  await own.fill('1');
  await own.press('Tab');
  await expect.poll(() => accepted('order_plants')).toBeLessThan(form);
  await expect(own).toHaveValue('1');
  await own.fill('');
  await own.press('Tab');
  await expect.poll(() => accepted('order_plants')).toBeGreaterThan(form);
  await expectAccessible(page);
});

test('how it asks and where help is sought is set beside what that gives', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/gate`);
  const through = page.getByRole('region', { name: 'Read-through' });
  await expect(through.getByText('???')).toHaveCount(3);
  await page.getByLabel('Where help is sought at try 2').selectOption('options');
  await expect(through.getByText(/I can help with these/)).toBeVisible();
  await page.getByRole('button', { name: 'Take try 1 away' }).click();
  await expect(through.getByText('???')).toHaveCount(2);
  const silences = page.getByLabel('Silences in a row');
  await silences.fill('1');
  await silences.press('Tab');
  await expect(through.getByText('(nothing)')).toHaveCount(1);
  await page.getByLabel('A single likely intent').selectOption('take');
  const most = page.getByLabel('Intents offered at most');
  await most.fill('2');
  await most.press('Tab');
  await modelCurrent(page);
  await page.reload();
  await expect(most).toHaveValue('2');
  await expect(page.getByLabel('A single likely intent')).toHaveValue('take');
  await expectAccessible(page);
});
