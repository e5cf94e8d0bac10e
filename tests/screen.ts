import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** Waits until the model answers for the bot as it stands. */
export async function modelCurrent(page: Page): Promise<void> {
  await expect(page.locator('[data-state=current]')).toBeVisible({ timeout: 60_000 });
}

/** Types a message into the probe and waits for what it was read as. */
export async function probe(page: Page, text: string): Promise<void> {
  await page.getByRole('textbox', { name: /^(Probe|Say)/ }).fill(text);
  await expect(page.getByTestId('probe-decision')).toBeVisible();
}

/** Goes to a page and waits until it acts. */
export async function visit(page: Page, url: string): Promise<void> {
  await page.goto(url);
  await page.locator('html[data-ready]').waitFor();
}

/** Chooses from a list that is searched by typing. */
export async function pick(page: Page, label: string, option: string): Promise<void> {
  const field = page.getByRole('combobox', { name: label, exact: true });
  await field.fill(option);
  await page.getByRole('option', { name: option, exact: true }).click();
}

/** Opens a bot of the list. */
export async function openBot(page: Page, url: string, name: string): Promise<void> {
  await visit(page, url);
  await page.getByRole('link', { name, exact: true }).click();
  await expect(page.getByRole('navigation', { name: 'Stages' })).toBeVisible();
}

/** Says something in Try and waits for the turn. */
export async function say(page: Page, text: string): Promise<void> {
  const turns = page.locator('[data-turn]');
  const before = await turns.count();
  const line = page.getByRole('textbox', { name: /^Say/ });
  await line.fill(text);
  await line.press('Enter');
  await expect(turns).toHaveCount(before + 1);
}

/** What the bot said in the last turn. */
export const lastSaid = (page: Page) => page.locator('[data-turn]').last().locator('td').first();

/** Fails on anything that axe finds, and on a screen that scrolls sideways. */
export async function expectAccessible(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html).join(' | ')}`)).toEqual([]);
  const overflow = await page.evaluate(
    () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
  );
  expect(overflow).toBeLessThanOrEqual(0);
}
