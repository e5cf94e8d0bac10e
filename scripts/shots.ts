import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { chromium, type Page } from '@playwright/test';
import fillDemo from '../tests/demoData.js';
import { say, visit } from '../tests/screen.js';
import { startServer } from '../tests/server.js';
import playwright from '../playwright.config.js';

const FOLDER = 'docs/screenshots';

async function shoot(page: Page, name: string): Promise<void> {
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(400);
  await page.screenshot({ path: path.join(FOLDER, `${name}.png`) });
}

mkdirSync(FOLDER, { recursive: true });
const takeDemoAway = fillDemo();
const server = await startServer('demo');
const browser = await chromium.launch(playwright.use?.launchOptions);
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const at = (view: string) => visit(page, `${server.url}${view}`);
  await at('/bots/1/teach');
  await page.getByRole('link', { name: /26 of 26/ }).waitFor();
  await at('/bots/1/prove');
  await page.getByRole('button', { name: 'Run the test' }).first().click();
  await page.locator('[data-figure=accuracy]').waitFor();
  await page.mouse.move(0, 0);
  await shoot(page, 'prove');
  await page.getByRole('region', { name: 'Wrong lines' }).scrollIntoViewIfNeeded();
  await page.locator('.prove').evaluate((element) => element.scrollTo(0, element.scrollHeight / 3));
  await shoot(page, 'prove-wrong-lines');
  await page
    .getByRole('button', { name: /^Teach this message/ })
    .first()
    .click();
  await page.getByText(/^Taught to/).waitFor();
  await page.locator('[data-state=current]').waitFor();
  await page.getByRole('button', { name: 'Run the test' }).first().click();
  await page.getByRole('region', { name: 'Comparison' }).waitFor();
  await page.getByRole('link', { name: /^Runs/ }).click();
  await page.getByRole('img', { name: /^Accuracy and accepted/ }).waitFor();
  await shoot(page, 'prove-runs');
  await at('/bots/1/prove/report?set=1');
  await page.getByRole('region', { name: 'Reliability' }).scrollIntoViewIfNeeded();
  await shoot(page, 'prove-report');
  await page.request.post(`${server.url}/api/bots/1/history`, { data: { direction: 'undo', overOthers: true } });
  await at('/bots/1/prove');
  await page.getByRole('button', { name: 'New test set' }).click();
  await page.getByRole('textbox', { name: 'Name of the test set' }).fill('this morning');
  await page.keyboard.press('Enter');
  const lines = page.getByRole('textbox', { name: 'New test lines' });
  await lines.fill(
    [
      'hi is my order coming today, LM-20418\torder_status',
      'um yeah what time do you shut on a sunday\topening_hours',
      'will it rain tomorrow\t-',
      'my hosta has holes in its leaves and I did what you said',
      'can eight of us look round on saturday, one in a wheelchair',
      'three of the big lavender please, not the white',
      'how do I get there by bus',
      'I want to speak to whoever sold me this',
      'Will it rain tomorrow?\topening_hours',
    ].join('\n'),
  );
  await lines.press('Enter');
  await page.getByText(/speak_to_person\?/).waitFor();
  await page.getByRole('grid', { name: 'Test lines' }).getByRole('row').nth(3).focus();
  await shoot(page, 'prove-lines');
  await at('/bots/1/gate');
  await page.locator('[data-recommended]').first().waitFor();
  await page.evaluate(() => document.fonts.ready);
  await shoot(page, 'gate');
  await page.getByRole('region', { name: 'Levels by intent' }).scrollIntoViewIfNeeded();
  await page.locator('.gate').evaluate((element) => element.scrollTo(0, element.scrollHeight));
  await page.mouse.move(0, 0);
  await shoot(page, 'gate-asking');
  await at('/bots/1/prove/trials?show=customers');
  await page.getByRole('button', { name: 'Run', exact: true }).click();
  await page.getByText(/of 120 customers/).waitFor({ timeout: 120_000 });
  await shoot(page, 'prove-customers');
  await at('/bots/1/teach?intent=order_plants');
  await page.getByRole('textbox', { name: /^Probe/ }).fill('hi could you pop four thyme by for me tomorrow');
  await page.getByTestId('probe-decision').waitFor();
  await shoot(page, 'teach');
  await page.getByRole('textbox', { name: /^Probe/ }).fill('can i get four thyme on friday plese, not roses');
  await page.getByRole('button', { name: 'Why', exact: true }).click();
  await page.getByText('Nearest utterances').waitFor();
  await shoot(page, 'why');
  await page.context().addCookies([{ name: 'theme', value: 'dark', url: server.url }]);
  await at('/bots/1/gate');
  await page.locator('[data-recommended]').first().waitFor();
  await shoot(page, 'gate-dark');
  await at('/bots/1/prove?set=1&show=curves');
  await shoot(page, 'prove-curves-dark');
  await page.context().clearCookies();
  await at('/bots/1/teach/entities');
  await shoot(page, 'entities');
  await at('/bots/1/say');
  await shoot(page, 'say');
  await at('/bots/1/say/texts');
  await shoot(page, 'texts');
  await at('/bots/1/settings');
  await shoot(page, 'settings');
  await at('/bots/1/try');
  for (const text of [
    'hello, can I order 3 lavender',
    'large ones',
    'what time do you close?',
    "I'll collect them on Friday",
    'no',
    'make it five',
  ])
    await say(page, text);
  await shoot(page, 'try');
  await at('/');
  await shoot(page, 'bots');
  const broken = {
    name: 'ferry-desk.yaml',
    mimeType: 'application/yaml',
    buffer: Buffer.from(
      'reedGate: 1\nname: Ferry desk\nentities:\n  - { name: size, kind: list, values: [small] }\nintents:\n  - { name: book, form: bok, utterances: ["a <siz>small</siz> cabin", "<size>open"] }\nforms:\n  - { name: book, slots: [{ name: size, entity: siz, required: true }] }\n',
    ),
  };
  await page.locator('input[type=file]').setInputFiles(broken);
  await page.getByRole('alert').waitFor();
  await shoot(page, 'refused');
} finally {
  await browser.close();
  await server.remove();
  takeDemoAway();
}
