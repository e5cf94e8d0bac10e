import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { expectAccessible, modelCurrent, pick, visit } from './screen.js';
import { startServer, type RunningServer } from './server.js';

let server: RunningServer;

test.beforeAll(async () => {
  server = await startServer('demo');
});

test.afterAll(() => server.remove());

const chooseFile = (page: Page, name: string) => page.locator(`input[type=file][aria-label="${name}"]`);

test('import a test file, run it, and read the accuracy that the command prints', async ({ page }) => {
  const { stdout, status } = spawnSync(
    './reed',
    ['evaluate', '--bot', 'demo/nursery/bot.yaml', '--test', 'demo/nursery/test.tsv', '--json'],
    {
      encoding: 'utf8',
      maxBuffer: 64 * 1024 * 1024,
    },
  );
  expect(status).toBe(0);
  const printed = JSON.parse(stdout) as {
    accuracy: number;
    inScope: number;
    intents: { intent: string; f1: number }[];
  };
  expect(printed.inScope).toBeGreaterThan(280);

  await visit(page, `${server.url}/bots/1/prove`);
  await chooseFile(page, 'Import a test file').setInputFiles('demo/nursery/test.tsv');
  await expect(page.getByRole('combobox', { name: 'Test set' })).not.toHaveValue('1');
  await page.getByRole('button', { name: 'Run the test' }).first().click();
  await expect(page.locator('[data-figure=accuracy]')).toHaveText(`${(printed.accuracy * 100).toFixed(1)} %`, {
    timeout: 60_000,
  });
  await expect(page.getByRole('link', { name: /^Prove/ })).toContainText(`${Math.round(printed.accuracy * 100)} %`);
  const voucher = printed.intents.find((intent) => intent.intent === 'voucher')!;
  const row = page.getByRole('row', { name: /^voucher/ });
  await expect(row).toContainText(voucher.f1.toFixed(2).replace(/^0/, ''));
});

test('lines of a confused pair are shown, and put into the probe', async ({ page }) => {
  // Two runs, an explanation and three models.
  test.slow();
  await visit(page, `${server.url}/bots/1/prove?set=1`);
  await page.getByRole('button', { name: 'Run the test' }).first().click();
  await expect(page.locator('[data-figure=accuracy]')).toBeVisible({ timeout: 60_000 });
  const pair = page.getByRole('region', { name: 'Confusion matrix' }).getByRole('button').first();
  const label = (await pair.innerText()).trim();
  await pair.click();
  const [, count, expected, predicted] = /^(\d+) of (.+) read as (.+)$/.exec(label)!;
  const lines = page.getByRole('region', { name: 'Wrong lines' });
  await expect(lines.getByRole('heading', { name: `${expected} read as ${predicted}` })).toBeVisible();
  await expect(lines.getByText(`${count} lines`)).toBeVisible();
  const message = (await lines.locator('.gloss').first().textContent())!;
  await lines.getByRole('button', { name: 'Put this message into the probe' }).first().click();
  await expect(page.getByRole('textbox', { name: /^Probe/ })).toHaveValue(message);
  await lines.getByRole('button', { name: 'Show all' }).click();
  await expect(lines.getByRole('heading', { name: /sure and wrong first/ })).toBeVisible();

  // What misled the bot is seen in its place, and can be moved.
  const whys = lines.getByRole('button', { name: 'Why this message is read so' });
  const moved = lines.getByRole('button', { name: /^Move “/ }).first();
  const close = lines.getByRole('button', { name: 'Close the explanation' });
  // Of some messages no utterance of another intent is near.
  for (let at = 0; at < 8; at++) {
    await whys.nth(at).click();
    await expect(lines.getByText('Nearest utterances')).toBeVisible();
    if ((await moved.count()) > 0) break;
    await close.click();
  }
  await expectAccessible(page);
  await moved.click();
  await expect(page.getByText(/^Moved to .* the next run tells/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click();
  await close.click();

  // Taught, the line is in no figure of the next run; a label that was wrong is corrected.
  await lines
    .getByRole('button', { name: /^Teach this message to / })
    .first()
    .click();
  await expect(page.getByText(/^Taught to .* in no figure of the next run/)).toBeVisible();
  await modelCurrent(page);
  await lines.getByRole('button', { name: 'Correct the label of this message' }).last().click();
  await pick(page, 'What the message is', 'out of scope');
  await expect(page.getByText(/^The label is corrected/)).toBeVisible();
  await page.getByRole('button', { name: 'Run the test' }).first().click();
  await expect(page.getByText('1 line of the set was also taught, and is left out of every figure')).toBeVisible({
    timeout: 60_000,
  });
  await expect(page.getByRole('region', { name: 'Comparison' })).toContainText('3 that only one of the two has');
});

test('a test file with faults is refused with their lines', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/prove`);
  const before = await page.getByRole('combobox', { name: 'Test set' }).locator('option').count();
  const file = path.join(server.data, 'broken.jsonl');
  writeFileSync(file, '{"text":"fine","intent":"voucher"}\n{"intent":"voucher"}\n{"text":\n');
  await chooseFile(page, 'Import a test file').setInputFiles(file);
  const alert = page.getByRole('alert');
  await expect(alert).toContainText('broken.jsonl: The file was not brought in: it has 2 faults. Nothing was changed.');
  await expect(alert).toContainText('line 2');
  await expect(alert).toContainText('line 3');
  await expect(page.getByRole('combobox', { name: 'Test set' }).locator('option')).toHaveCount(before);
});

test('a long run shows how far it is and can be stopped', async ({ page }) => {
  const lines = Array.from({ length: 1500 }, (_, index) =>
    JSON.stringify({ text: `when could I come by and see plant number ${index}`, intent: 'garden_visit' }),
  );
  const file = path.join(server.data, 'long.jsonl');
  writeFileSync(file, lines.join('\n'));
  await visit(page, `${server.url}/bots/1/prove`);
  await chooseFile(page, 'Import a test file').setInputFiles(file);
  await expect(page.getByText('1,500 lines, not run yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Run the test' }).first().click();
  await expect(page.getByText(/\d+ of 1,500 lines read/)).toBeVisible();
  await expect(page.getByText(/[1-9]\d* of 1,500 lines read/)).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText('Stopped. The last finished run is shown.')).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).first().click();
  await page.getByRole('button', { name: 'Delete the set' }).click();
  await expect(page.getByText('long (1500)')).toHaveCount(0);
});

test('a run of before the last change says so', async ({ page, request }) => {
  await visit(page, `${server.url}/bots/1/prove?set=1`);
  await page.getByRole('button', { name: 'Run the test' }).first().click();
  await expect(page.getByText(/run\s+\d+\s+\w+/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('the bot has changed since')).toHaveCount(0);
  await request.post(`${server.url}/api/bots/1/acts`, { data: { do: 'addIntent', name: 'something_new' } });
  await page.reload();
  await expect(page.getByText('the bot has changed since')).toBeVisible();
});

test('a test set is written, labelled by keys, run, changed for, compared and reported', async ({ page }) => {
  // The whole way, from the first line to the report.
  test.slow();
  await visit(page, `${server.url}/bots/1/prove`);
  await page.getByRole('button', { name: 'New test set' }).click();
  await page.getByRole('textbox', { name: 'Name of the test set' }).fill('by hand');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/No lines yet/)).toBeVisible();
  const field = page.getByRole('textbox', { name: 'New test lines' });
  await field.fill(
    [
      'where have my roses got to\torder_status',
      'when do you shut on a Sunday\topening_hours',
      'is it going to rain tomorrow\t-',
      'how tall does lavender get',
      'my hosta has holes in its leaves',
      'can eight of us look round on Saturday',
      'please stop order LM-20418',
      'could I speak to a human being',
      'do you take back an unused plant pot',
      'Do you take back an unused plant pot?\tcomplaint',
      'hello\tgreeeting',
    ].join('\n'),
  );
  await field.press('Enter');
  const rows = page.getByRole('grid', { name: 'Test lines' }).getByRole('row');
  await expect(rows).toHaveCount(10);
  await expect(page.getByRole('alert', { name: 'Lines that were not added' })).toContainText('no intent "greeeting"');
  await expect(field).toHaveValue('hello\tgreeeting');
  await field.fill('');
  for (let line = 3; line < 8; line++) await expect(rows.nth(line)).toContainText('?');
  await expectAccessible(page);

  // What the bot takes a line for is taken as its label with Enter, and the next line is at hand.
  await rows.nth(3).focus();
  for (let line = 3; line < 8; line++) await page.keyboard.press('Enter', { delay: 30 });
  await expect(rows.nth(8)).toBeFocused();
  await page.keyboard.press('o');
  await expect(rows.nth(9)).toBeFocused();
  await expect(page.getByText('2 labelled in two ways')).toBeVisible();
  await page.keyboard.press('Delete');
  await expect(rows).toHaveCount(9);
  await rows.nth(8).focus();
  await page.keyboard.press('e');
  await page.getByRole('textbox', { name: 'Test line 9' }).fill('do you take back a plant pot nobody used');
  await page.keyboard.press('Enter');
  await expect(rows.nth(8)).toContainText('nobody used');
  await expect(rows.nth(8)).toBeFocused();
  await expect(page.getByText(/without a label/)).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).first().click();
  await expect(rows.nth(8)).toContainText('an unused plant pot');

  // Slots are written in tags, and what else is known of a line below, one after another without waiting.
  await rows.nth(6).focus();
  await page.keyboard.press('e');
  await page.getByRole('textbox', { name: 'Test line 7' }).fill('please stop order <order_no>LM-20418');
  await page.keyboard.press('Enter');
  await expect(page.getByText('<order_no> is not closed')).toBeVisible();
  await page.keyboard.type('</order_no>');
  await page.keyboard.press('Enter');
  await expect(rows.nth(6)).toBeFocused();
  await page.keyboard.press('t');
  await page.keyboard.type('short');
  await page.keyboard.press('Tab');
  await page.keyboard.type('phone');
  await page.keyboard.press('Enter');
  await expect(rows.nth(6)).toContainText('short · phone');
  await page.getByLabel('order_no “LM-20418” is').fill('LM-20418');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'The same for the 8 lines that tell nothing' }).click();
  for (const line of [0, 8]) await expect(rows.nth(line)).toContainText('short · phone');
  await expectAccessible(page);

  await page.getByRole('button', { name: 'Run the test' }).click();
  await expect(page.locator('[data-figure=accuracy]')).toBeVisible({ timeout: 60_000 });
  await visit(page, `${server.url}/bots/1/teach?intent=voucher`);
  await page.getByRole('textbox', { name: 'New utterance' }).fill('is it going to rain on my gift card');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row').filter({ hasText: 'rain on my gift card' })).toBeVisible();
  await modelCurrent(page);
  await page.getByRole('link', { name: /^Prove/ }).click();
  await page.getByRole('combobox', { name: 'Test set' }).selectOption({ label: 'by hand (9)' });
  await page.getByRole('button', { name: 'Run the test' }).click();
  const comparison = page.getByRole('region', { name: 'Comparison' });
  await expect(comparison).toContainText(/Of 9 lines \d were mended and \d broken/, { timeout: 60_000 });
  await page.getByRole('link', { name: 'Curves' }).click();
  await expect(page.getByRole('row', { name: /^channel phone/ })).toBeVisible();
  await page.getByRole('link', { name: 'Runs (2)' }).click();
  await expect(page.getByRole('img', { name: /Accuracy and accepted share of 2 runs/ })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'compared with' }).click();
  await expect(comparison).toBeVisible();

  await page.getByRole('link', { name: 'Report' }).click();
  await expect(page.getByRole('heading', { name: 'Lantern Marsh Nursery: by hand' })).toBeVisible();
  await expectAccessible(page);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Lines as CSV' }).click();
  const lines = readFileSync(await (await download).path(), 'utf8')
    .trim()
    .split('\n');
  expect(lines).toHaveLength(10);
  expect(lines[1]).toMatch(/^where have my roses got to,order_status,/);
});

test('a share of the utterances is set aside to test with, and taught no longer', async ({ page }) => {
  await visit(page, `${server.url}/bots/2/teach?intent=missed_bin`);
  const utterances = page.getByRole('grid', { name: /^Utterances of/ });
  await expect(utterances).toBeVisible();
  const before = Number(await utterances.getAttribute('aria-rowcount'));
  await visit(page, `${server.url}/bots/2/prove`);
  await page.getByRole('button', { name: 'Set utterances aside' }).click();
  await page.getByRole('textbox', { name: /^Name of the test set for a fifth/ }).fill('aside');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('grid', { name: 'Test lines' }).getByRole('row').first()).toBeVisible();
  const set = await page.getByRole('combobox', { name: 'Test set' }).locator('option:checked').innerText();
  expect(Number(/\((\d+)\)/.exec(set)![1])).toBeGreaterThan(10);
  await visit(page, `${server.url}/bots/2/teach?intent=missed_bin`);
  await expect(utterances).toHaveAttribute('aria-rowcount', String(before - Math.round(before / 5)));
});

test.describe('the commands', () => {
  const reed = (...args: string[]) => spawnSync('./reed', args, { encoding: 'utf8', maxBuffer: 64 * 1024 * 1024 });

  test('recognise gives a line of JSON for each message, with every intent ranked', () => {
    const file = path.join(server.data, 'in.csv');
    writeFileSync(
      file,
      'text,now\n"two lavender for Friday, please",2026-03-04T09:30\nwho won the match yesterday evening,\n',
    );
    const { stdout, status } = reed('recognise', '--bot', 'demo/nursery/bot.yaml', '--in', file);
    expect(status).toBe(0);
    const [first, second] = stdout
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Record<string, unknown>);
    expect(first).toMatchObject({
      text: 'two lavender for Friday, please',
      intent: 'order_plants',
      decision: 'accept',
    });
    expect(first!['slots']).toEqual([
      { slot: 'quantity', entity: 'quantity', start: 0, end: 3, text: 'two', value: 2 },
      { slot: 'plant', entity: 'plant', start: 4, end: 12, text: 'lavender', value: 'lavender' },
      { slot: 'when', entity: 'day', start: 17, end: 23, text: 'Friday', value: '2026-03-06' },
    ]);
    expect(second).toMatchObject({ intent: null, decision: 'none' });
    expect(second!['ranking']).toHaveLength(18);
  });

  test('evaluate exits with 1 below the least accuracy', () => {
    const file = path.join(server.data, 'wrong.jsonl');
    writeFileSync(file, '{"text":"thank you all very much","intent":"voucher"}\n');
    const { status, stderr } = reed(
      'evaluate',
      '--bot',
      'demo/nursery/bot.yaml',
      '--test',
      file,
      '--min-accuracy',
      '0.5',
    );
    expect(status).toBe(1);
    expect(stderr).toContain('The accuracy is 0.000, below 0.5.');
  });

  test('converse runs the demo’s walkthroughs, and all pass', () => {
    const { status, stdout } = reed(
      'converse',
      '--bot',
      'demo/nursery/bot.yaml',
      '--walkthroughs',
      'demo/nursery/walkthroughs.json',
      '--json',
    );
    expect(status).toBe(0);
    const results = JSON.parse(stdout) as { name: string; passed: boolean; transcript: unknown[] }[];
    expect(results).toHaveLength(26);
    expect(results.filter((result) => !result.passed)).toEqual([]);
    expect(results[0]!.transcript.length).toBeGreaterThan(3);
  });

  test('bad use and bad files exit with 2 and say what is wrong', () => {
    const broken = path.join(server.data, 'bot.json');
    writeFileSync(
      broken,
      JSON.stringify({ reedGate: 1, name: 'x', forms: [{ name: 'f', slots: [{ name: 's', entity: 'nmber' }] }] }),
    );
    for (const [args, message] of [
      [['recognise', '--bot', 'nowhere.yaml', '--in', 'x'], /nowhere\.yaml: there is no such file/],
      [['evaluate', '--bot', broken, '--test', 'x'], /forms\[0\]\.slots\[0\]\.entity: there is no entity "nmber"/],
      [['recognise', '--bot', broken], /required option '--in <file>'/],
      [['recognise', '--bot', broken, '--in', 'x', '--now', 'soon'], /--now must be a local time/],
      [['evaluate', '--bot', broken, '--test', 'x', '--min-accuracy', '2'], /between 0 and 1/],
      [['nonsense'], /usage: \.\/reed/],
    ] as const) {
      const { status, stderr, stdout } = reed(...args);
      expect([status, stdout], args.join(' ')).toEqual([2, '']);
      expect(stderr).toMatch(message);
    }
  });
});
