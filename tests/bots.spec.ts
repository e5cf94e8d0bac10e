import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, modelCurrent, probe, visit } from './screen.js';
import { startServer, type RunningServer } from './server.js';

let server: RunningServer;

test.beforeAll(async () => {
  server = await startServer('demo');
});

test.afterAll(() => server.remove());

const importFile = (page: Page) => page.locator('input[type=file][aria-label="Import a bot file"]');

test('a broken bot file is refused with its list of faults, and nothing is changed', async ({ page }) => {
  const file = path.join(server.data, 'broken.yaml');
  writeFileSync(
    file,
    `reedGate: 1
name: Broken
entities:
  - { name: size, kind: list, values: [small] }
intents:
  - { name: order, form: ordr, utterances: ['two <siz>small</siz>', '<size>open'] }
forms:
  - { name: order, slots: [{ name: size, entity: siz, required: true }] }
`,
  );
  await visit(page, server.url);
  const before = await page.locator('tbody tr').count();
  await importFile(page).setInputFiles(file);
  const alert = page.getByRole('alert');
  await expect(alert).toContainText('broken.yaml: The file was not brought in: it has 3 faults. Nothing was changed.');
  await expect(alert).toContainText('intents[0].form there is no form "ordr"; did you mean "order"?');
  await expect(alert).toContainText('intents[0].utterances[1] <size> is not closed; add </size>');
  await expect(alert).toContainText('forms[0].slots[0].entity there is no entity "siz"; did you mean "size"?');
  await alert.getByRole('button', { name: 'Close' }).click();
  await page.reload();
  await expect(page.locator('tbody tr')).toHaveCount(before);
  await expect(page.getByText('Broken')).toHaveCount(0);
});

test('a bot goes out as a file and comes in the same', async ({ page, request }) => {
  const [json, yaml] = await Promise.all(
    ['json', 'yaml'].map((format) => request.get(`${server.url}/api/bots/1/file?format=${format}`)),
  );
  expect(yaml!.headers()['content-disposition']).toContain('lantern-marsh-nursery.yaml');
  const file = path.join(server.data, 'copy.json');
  writeFileSync(file, await json!.body());
  await visit(page, server.url);
  await importFile(page).setInputFiles(file);
  await expect(page.getByRole('heading', { name: 'order_plants', exact: true })).toBeVisible();
  const id = /bots\/(\d+)/.exec(page.url())![1]!;
  expect(await (await request.get(`${server.url}/api/bots/${id}/file?format=yaml`)).text()).toBe(await yaml!.text());
});

test('new, duplicate, delete and undo', async ({ page }) => {
  await visit(page, server.url);
  await page.getByRole('button', { name: 'New bot' }).click();
  await page.getByRole('textbox', { name: 'Name of the new bot' }).fill('Ferry desk');
  await page.getByRole('button', { name: 'Make the bot' }).click();
  await expect(page.getByRole('heading', { name: 'No intents yet' })).toBeVisible();
  await expectAccessible(page);
  await visit(page, server.url);
  await page.getByRole('button', { name: 'Duplicate Ferry desk' }).click();
  await expect(page.getByRole('link', { name: 'Ferry desk (copy)', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Delete Ferry desk', exact: true }).click();
  await expect(page.getByRole('link', { name: 'Ferry desk', exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: 'Ferry desk', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'New bot' }).click();
  await page.getByRole('textbox', { name: 'Name of the new bot' }).fill('Ferry desk');
  await page.getByRole('button', { name: 'Make the bot' }).click();
  await expect(page.getByText('There is another bot "Ferry desk".')).toBeVisible();
});

test('axe finds nothing on any view, in either theme, and no view scrolls sideways', async ({ page }) => {
  test.setTimeout(300_000);
  for (const theme of ['light', 'dark']) {
    await page.context().addCookies([{ name: 'theme', value: theme, url: server.url }]);
    for (const view of [
      '',
      '/bots/1/teach',
      '/bots/1/teach/entities',
      '/bots/1/teach/entities?entity=order_no',
      '/bots/1/say',
      '/bots/1/try',
      '/bots/1/prove',
      '/bots/1/prove?show=lines',
      '/bots/1/prove?show=runs',
      '/bots/1/prove/report?set=1',
      '/bots/1/gate',
    ]) {
      await visit(page, `${server.url}${view}`);
      if (view === '/bots/1/prove' && theme === 'light') {
        await page.getByRole('button', { name: 'Run the test' }).first().click();
        await expect(page.locator('[data-figure=accuracy]')).toBeVisible({ timeout: 60_000 });
      }
      if (view.endsWith('/teach')) {
        await modelCurrent(page);
        await probe(page, 'two lavender for Friday');
        await page.keyboard.press('Enter');
        await page.getByRole('button', { name: 'Why', exact: true }).click();
        await expect(page.getByText('Nearest utterances')).toBeVisible();
      }
      if (view.endsWith('/try') && theme === 'light') {
        const line = page.getByRole('textbox', { name: /^Say/ });
        await line.fill('hello can I order two ferns');
        await line.press('Enter');
        await expect(page.locator('[data-turn]')).toHaveCount(1);
      }
      await expectAccessible(page);
    }
  }
  await page.keyboard.press('Control+k');
  await page.keyboard.type('lavender');
  await expect(page.getByRole('option', { name: /value/ }).first()).toBeVisible();
  await expectAccessible(page);
});

test('no page runs inline scripts or asks anything of the outside', async ({ page }) => {
  const outside: string[] = [];
  const refused: string[] = [];
  page.on('request', (request) => {
    if (!request.url().startsWith(server.url) && !request.url().startsWith('data:')) outside.push(request.url());
  });
  page.on('console', (message) => {
    if (message.type() === 'error') refused.push(message.text());
  });
  const response = (await page.goto(`${server.url}/bots/1/teach`))!;
  const policy = response.headers()['content-security-policy']!;
  expect(policy).toContain("default-src 'none'");
  expect(policy).not.toMatch(/script-src[^;]*'unsafe-inline'/);
  expect(response.headers()['x-content-type-options']).toBe('nosniff');
  await page.locator('html[data-ready]').waitFor();
  expect(outside).toEqual([]);
  expect(refused).toEqual([]);
});

test('what a person typed is text, never markup', async ({ page, request }) => {
  const text = '<img src=x onerror="document.title=1"> & <b>bold</b>';
  const escaped = text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');
  await request.post(`${server.url}/api/bots/1/acts`, {
    data: { do: 'addUtterances', intent: 'complaint', after: null, utterances: [escaped] },
  });
  await visit(page, `${server.url}/bots/1/teach?intent=complaint`);
  await expect(page.locator('[data-row="0"] .gloss')).toHaveText(text);
  await probe(page, text);
  await expect(page.locator('.probe .gloss')).toHaveText(text);
  expect(await page.locator('img').count()).toBe(0);
});

test.describe('requests', () => {
  test('from another site are refused', async ({ request }) => {
    const data = { do: 'addIntent', name: 'intruder' };
    const url = `${server.url}/api/bots/1/acts`;
    expect((await request.post(url, { data, headers: { origin: 'https://example.org' } })).status()).toBe(403);
    expect((await request.post(url, { data, headers: { 'sec-fetch-site': 'cross-site' } })).status()).toBe(403);
    expect(await (await request.get(`${server.url}/api/bots/1/file`)).text()).not.toContain('intruder');
  });

  test('that are wrong are answered with a sentence', async ({ request }) => {
    const cases: [string, unknown, number, RegExp][] = [
      ['/api/bots/1/acts', { do: 'addIntent' }, 422, /not as it must be/],
      ['/api/bots/99/acts', { do: 'addIntent', name: 'a' }, 404, /no such bot/],
      ['/api/bots/x/acts', { do: 'addIntent', name: 'a' }, 404, /nothing at this address/],
      ['/api/bots/1/recognise', { text: 'x'.repeat(20_001) }, 422, /more than 20,000 characters/],
      ['/api/bots/1/recognise', {}, 422, /not as it must be/],
      ['/api/bots/1/conversations/1234/turns', { type: 'noInput' }, 404, /no such conversation/],
      ['/api/bots/1/conversations/1/turns', { type: 'shout' }, 422, /a text, a choice, no input/],
      ['/api/bots/1/test-sets/77/runs', {}, 404, /no such test set/],
      ['/api/bots/1/acts', { do: 'addIntent', name: 'a\u0000b' }, 422, /is no name/],
      ['/api/bots', { name: ' ' }, 422, /Give the bot a name/],
    ];
    for (const [url, data, status, message] of cases) {
      const response = await request.post(server.url + url, { data });
      expect(response.status(), url).toBe(status);
      expect(((await response.json()) as { message: string }).message).toMatch(message);
    }
  });

  test('that bring too much are refused and leave nothing behind', async ({ request }) => {
    const response = await request.post(`${server.url}/api/bots/import`, {
      data: Buffer.alloc(26 * 1024 * 1024 - 1000, 'a'),
    });
    expect(response.status()).toBe(422);
    expect(((await response.json()) as { message: string }).message).toContain('larger than 25 MB');
  });

  test('for the health tell version, database and models', async ({ request }) => {
    const { version } = JSON.parse(readFileSync('package.json', 'utf8')) as { version: string };
    const read = async () => (await (await request.get(`${server.url}/api/health`)).json()) as Record<string, unknown>;
    await request.get(`${server.url}/api/bots/1/model`);
    const health = await read();
    expect(health).toMatchObject({ version, database: 'ok' });
    expect(health['models']).toContainEqual(
      expect.objectContaining({
        bot: 1,
        name: 'Lantern Marsh Nursery',
        state: expect.stringMatching(/current|catching up/),
      }),
    );
    const { id } = (await (await request.post(`${server.url}/api/bots`, { data: { name: 'Sleeper' } })).json()) as {
      id: number;
    };
    expect((await read())['models']).toContainEqual({ bot: id, name: 'Sleeper', state: 'at rest' });
  });

  test('for what is not there show a page with a way back', async ({ page }) => {
    expect((await page.goto(`${server.url}/bots/4711/teach`))!.status()).toBe(404);
    await expect(page.getByText('There is no such bot.')).toBeVisible();
    await page.getByRole('link', { name: 'All bots' }).click();
    await expect(page.getByRole('heading', { name: 'Bots' })).toBeVisible();
  });
});

test.describe('a stop', () => {
  for (const signal of ['SIGTERM', 'SIGKILL'] as const) {
    test(`by ${signal} in the middle of writing loses nothing that was confirmed`, async () => {
      const own = await startServer('demo');
      const confirmed: string[] = [];
      let stopping: Promise<void> | null = null;
      for (let count = 0; count < 200; count++) {
        const name = `kept_${count}`;
        const response = await fetch(`${own.url}/api/bots/1/acts`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ do: 'addIntent', name }),
        }).catch(() => null);
        if (response === null) break;
        if (response.ok) confirmed.push(name);
        if (count === 25) stopping = own.stop(signal);
      }
      await stopping;
      expect(confirmed.length).toBeGreaterThan(25);
      expect(confirmed.length).toBeLessThan(200);
      await own.restart();
      const file = await (await fetch(`${own.url}/api/bots/1/file?format=json`)).text();
      const names = (JSON.parse(file) as { intents: { name: string }[] }).intents.map((intent) => intent.name);
      expect(names.slice(18, 18 + confirmed.length)).toEqual(confirmed);
      expect(names.length - 18 - confirmed.length).toBeLessThanOrEqual(1);
      await own.remove();
    });
  }
});

test('a bot with nothing in it leads on: samples are made in place, and what is done is ticked', async ({ page }) => {
  await visit(page, server.url);
  await page.getByRole('button', { name: 'New bot' }).click();
  await page.getByRole('textbox', { name: 'Name of the new bot' }).fill('Led on');
  await page.keyboard.press('Enter');
  const steps = page.getByRole('region', { name: 'First steps' });
  await expect(steps.getByRole('link')).toHaveCount(5);
  await page.getByRole('button', { name: /^Begin with a sample: thanks/ }).click();
  await expect(steps.getByRole('link')).toHaveCount(4);
  await expect(page.getByRole('grid')).toHaveAttribute('aria-rowcount', '8');
  await steps.getByRole('link', { name: 'An entity' }).click();
  await page.getByRole('button', { name: /^Begin with a sample: sizes/ }).click();
  await expect(page.getByRole('textbox', { name: 'Value 3', exact: true })).toHaveValue('large');
  await steps.getByRole('link', { name: 'A form' }).click();
  await page.getByRole('button', { name: /^Begin with a sample: a call back/ }).click();
  await expect(page.locator('[data-slot]')).toHaveCount(2);
  await expect(steps.getByRole('link')).toHaveCount(2);
  await expectAccessible(page);
  await steps.getByRole('link', { name: 'A test set' }).click();
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Download a file to fill in' }).click(),
  ]);
  expect(file.suggestedFilename()).toBe('test-lines.csv');
});
