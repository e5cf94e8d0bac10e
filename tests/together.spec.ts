import { expect, test, type Browser, type Page } from '@playwright/test';
import { visit } from './screen.js';
import { startServer, type RunningServer } from './server.js';

let server: RunningServer;

test.beforeAll(async () => {
  server = await startServer('demo');
});

test.afterAll(() => server.remove());

/** A window of somebody else: another browser knows nothing of this one. */
async function somebodyElse(browser: Browser, path: string): Promise<Page> {
  const page = await (await browser.newContext()).newPage();
  await visit(page, server.url + path);
  return page;
}

const row = (page: Page, number: number) => page.locator(`[data-row="${number - 1}"]`);
const editor = (page: Page, number: number) => page.getByRole('textbox', { name: `Utterance ${number}`, exact: true });

async function write(page: Page, number: number, text: string): Promise<void> {
  await row(page, number).focus();
  await page.keyboard.press('Enter');
  await editor(page, number).fill(text);
}

async function remove(page: Page, number: number): Promise<void> {
  await row(page, number).focus();
  await page.keyboard.press('Delete');
}

test('what is being written stays with its row when another window deletes a row above', async ({ page, browser }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=voucher`);
  const other = await somebodyElse(browser, '/bots/1/teach?intent=voucher');
  await write(page, 4, 'my own new words');
  await remove(other, 1);
  await expect(editor(page, 3)).toHaveValue('my own new words');
  await editor(page, 3).press('Shift+Enter');
  await expect(row(page, 3)).toContainText('my own new words');
  await expect(row(other, 3)).toContainText('my own new words');
  await expect(row(other, 4)).not.toContainText('my own new words');

  // Undo takes back the own act alone, though the other came after it.
  await other.keyboard.press('Control+z');
  await expect(row(page, 1)).toContainText('can I buy a gift voucher');
  await expect(row(page, 4)).toContainText('my own new words');
  await other.context().close();
});

test('words of a row that somebody else deletes are put where nothing is lost', async ({ page, browser }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=find_us`);
  const other = await somebodyElse(browser, '/bots/1/teach?intent=find_us');
  await write(page, 2, 'words of a row that goes');
  await remove(other, 2);
  await expect(page.getByRole('textbox', { name: 'New utterance' })).toHaveValue('words of a row that goes');
  await expect(page.getByText(/was deleted meanwhile/)).toBeVisible();
  await other.context().close();
});

test('a row that two change at once is refused to the second, who reads why and may keep theirs', async ({
  page,
  browser,
}) => {
  await visit(page, `${server.url}/bots/1/teach?intent=opening_hours`);
  const other = await somebodyElse(browser, '/bots/1/teach?intent=opening_hours');
  await write(page, 2, 'what I make of it');
  await write(other, 2, 'what they make of it');
  await editor(other, 2).press('Shift+Enter');
  await expect(row(other, 2)).toContainText('what they make of it');
  await editor(page, 2).press('Shift+Enter');
  await expect(page.getByText(/was changed meanwhile to “what they make of it”/)).toBeVisible();
  await expect(editor(page, 2)).toHaveValue('what I make of it');
  await editor(page, 2).press('Shift+Enter');
  await expect(row(other, 2)).toContainText('what I make of it');
  await other.context().close();
});

test('somebody with nothing of their own to undo is asked before it takes what others did', async ({
  page,
  browser,
}) => {
  await visit(page, `${server.url}/bots/1/teach?intent=complaint`);
  const other = await somebodyElse(browser, '/bots/1/teach?intent=complaint');
  const rows = page.getByRole('grid');
  const before = Number(await rows.getAttribute('aria-rowcount'));
  await remove(page, 1);
  await expect(other.getByRole('grid')).toHaveAttribute('aria-rowcount', String(before - 1));
  await expect(other.getByText(/Somebody else: delete 1 utterance of complaint/)).toBeVisible();
  await row(other, 1).focus();
  await other.keyboard.press('Control+z');
  await expect(other.getByText(/You have nothing to undo. Somebody else did this last/)).toBeVisible();
  await expect(rows).toHaveAttribute('aria-rowcount', String(before - 1));
  await other.getByRole('button', { name: 'Undo it', exact: true }).click();
  await expect(rows).toHaveAttribute('aria-rowcount', String(before));
  await other.context().close();
});

test('many acts of two windows at once are all there, in both', async ({ page, browser }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=stock_check`);
  const other = await somebodyElse(browser, '/bots/1/teach?intent=stock_check');
  const rows = page.getByRole('grid');
  const before = Number(await rows.getAttribute('aria-rowcount'));
  const type = async (own: Page, who: string) => {
    const add = own.getByRole('textbox', { name: 'New utterance' });
    for (let count = 0; count < 6; count++) {
      await add.pressSequentially(`${who} asks for stock ${count}`, { delay: 5 });
      await add.press('Enter');
    }
  };
  await Promise.all([type(page, 'left'), type(other, 'right')]);
  for (const own of [page, other]) {
    await expect(own.getByRole('grid')).toHaveAttribute('aria-rowcount', String(before + 12));
  }
  const file = await (await page.request.get(`${server.url}/api/bots/1/file?format=json`)).text();
  for (const who of ['left', 'right'])
    for (let count = 0; count < 6; count++) expect(file.split(`"${who} asks for stock ${count}"`)).toHaveLength(2);
  await other.context().close();
});

test('two windows on one list of values: nothing is lost, nothing goes into another row, both are fresh', async ({
  page,
  browser,
}) => {
  await visit(page, `${server.url}/bots/1/teach/entities?entity=plant`);
  const other = await somebodyElse(browser, '/bots/1/teach/entities?entity=plant');
  const value = (own: Page, number: number) => own.getByRole('textbox', { name: `Value ${number}`, exact: true });
  const table = (own: Page) => own.getByRole('table', { name: 'Values of plant' });
  const before = Number(await table(page).getAttribute('aria-rowcount'));

  // What is being typed stays with its value when another window deletes one above.
  const synonyms = page.getByRole('textbox', { name: 'Synonyms of sage' });
  await synonyms.fill('purple sage, cooking sage');
  await other.getByRole('button', { name: 'Delete lavender' }).click();
  await expect(value(page, 3)).toHaveValue('sage');
  await expect(synonyms).toHaveValue('purple sage, cooking sage');
  await synonyms.press('Tab');
  await expect(other.getByRole('textbox', { name: 'Synonyms of sage' })).toHaveValue('purple sage, cooking sage');
  await expect(other.getByRole('textbox', { name: 'Synonyms of mint' })).toHaveValue('spearmint, garden mint');

  // Undo takes back the own act alone.
  await other.keyboard.press('Control+z');
  await expect(value(page, 1)).toHaveValue('lavender');
  await expect(synonyms).toHaveValue('purple sage, cooking sage');

  const type = async (own: Page, who: string) => {
    const add = own.getByRole('textbox', { name: 'New value' });
    for (let count = 0; count < 5; count++) {
      await add.pressSequentially(`${who} plant ${count}`, { delay: 5 });
      await add.press('Enter');
    }
  };
  await Promise.all([type(page, 'left'), type(other, 'right')]);
  for (const own of [page, other]) await expect(table(own)).toHaveAttribute('aria-rowcount', String(before + 10));
  const file = await (await page.request.get(`${server.url}/api/bots/1/file?format=json`)).text();
  for (const who of ['left', 'right'])
    for (let count = 0; count < 5; count++) expect(file.split(`"${who} plant ${count}"`)).toHaveLength(2);
  await other.context().close();
});

test('a window that cannot hear the server says so, and catches up by itself', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=thanks_goodbye`);
  const rows = page.getByRole('grid');
  const before = Number(await rows.getAttribute('aria-rowcount'));
  await server.stop('SIGKILL');
  await expect(page.getByText(/The server cannot be heard/)).toBeVisible();
  await server.restart();
  const done = await fetch(`${server.url}/api/bots/1/acts`, {
    method: 'POST',
    body: JSON.stringify({ do: 'addUtterances', intent: 'thanks_goodbye', utterances: ['ta very much indeed'] }),
  });
  expect(done.ok).toBe(true);
  await expect(rows).toHaveAttribute('aria-rowcount', String(before + 1));
  await expect(page.getByText(/The server cannot be heard/)).toHaveCount(0);
});

test('conversations are the person’s own: listed, named, kept, and opened again', async ({ page, browser }) => {
  await visit(page, `${server.url}/bots/1/try`);
  const line = page.getByRole('textbox', { name: /^Say/ });
  for (const text of ['where are you', 'what do ferns cost']) {
    await page.getByRole('button', { name: 'Start anew' }).click();
    await expect(page.locator('[data-turn]')).toHaveCount(0);
    await line.fill(text);
    await line.press('Enter');
    await expect(page.locator('[data-turn]')).toHaveCount(1);
  }
  const list = page.getByRole('navigation', { name: 'Conversations' });
  await expect(list.getByRole('link')).toHaveCount(2);
  await list.getByRole('link', { name: /where are you/ }).click();
  await expect(page.locator('[data-turn]')).toContainText('where are you');
  const name = page.getByRole('textbox', { name: 'Name of the conversation' });
  await name.fill('The way here');
  await name.press('Enter');
  await expect(list.getByRole('link', { name: /The way here/ })).toBeVisible();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Kept', exact: true })).toHaveAttribute('aria-pressed', 'true');
  // Kept ones come first.
  await expect(list.getByRole('link').first()).toContainText('The way here');

  const other = await somebodyElse(browser, '/bots/1/try');
  await expect(other.getByRole('navigation', { name: 'Conversations' }).getByRole('link')).toHaveCount(0);
  await expect(other.locator('[data-turn]')).toHaveCount(0);
  await other.context().close();
});
