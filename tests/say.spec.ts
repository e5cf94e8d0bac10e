import { expect, test } from '@playwright/test';
import { lastSaid, modelCurrent, openBot, say, visit } from './screen.js';
import { startServer, type RunningServer } from './server.js';

let server: RunningServer;

test.beforeAll(async () => {
  server = await startServer('demo');
});

test.afterAll(() => server.remove());

test('place an order by talking: two slots in one message, a no at the confirmation, and a change', async ({
  page,
}) => {
  await openBot(page, server.url, 'Lantern Marsh Nursery');
  await page.getByRole('link', { name: /^Try/ }).click();
  await expect(page.getByText('Hello, this is Lantern Marsh Nursery.')).toBeVisible();
  await say(page, "I'd like to order three lavender please");
  await expect(lastSaid(page)).toContainText('Which size');
  await say(page, 'large ones');
  await say(page, 'I will collect them on Friday');
  await expect(lastSaid(page)).toContainText(
    /So that is 3 large lavender, for collection on Friday .*Shall I place the order\?/,
  );
  await say(page, 'no');
  await expect(lastSaid(page)).toContainText('What shall I change?');
  await say(page, 'make it five');
  await expect(lastSaid(page)).toContainText('So that is 5 large lavender');
  const turn = page.locator('[data-turn]').last();
  await expect(turn.locator('s')).toHaveText('3');
  await say(page, 'yes please');
  await expect(lastSaid(page)).toContainText(/Your order number is LM-\d+/);
  await expect(page.locator('[data-turn]').last()).toContainText('completes plant_order');
  await page.reload();
  await expect(page.locator('[data-turn]')).toHaveCount(6);
});

test('each turn shows what was read, the ranking, the decision and the slots so far', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/try`);
  await page.getByRole('button', { name: 'Start anew' }).click();
  await expect(page.locator('[data-turn]')).toHaveCount(0);
  await say(page, 'can I order two large ferns');
  const turn = page.locator('[data-turn]').last();
  await expect(turn.locator('[data-gloss=plant]')).toBeVisible();
  await expect(turn).toContainText('accept order_plants');
  await expect(turn).toContainText(/order_plants\s+[.1]\d\d/);
  await expect(turn).toContainText('intent: accepted order_plants');
  await expect(turn.locator('dl')).toContainText('quantity');
});

test('go back to a turn and change it', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/try`);
  await page.getByRole('button', { name: 'Start anew' }).click();
  await expect(page.locator('[data-turn]')).toHaveCount(0);
  await say(page, 'can I order two large ferns');
  await say(page, 'I will collect');
  await page.locator('[data-turn="1"]').getByRole('button', { name: 'Go back here' }).click();
  await expect(page.locator('[data-turn]')).toHaveCount(1);
  await expect(page.getByRole('textbox', { name: /^Say/ })).toHaveValue('I will collect');
  await say(page, 'please deliver them');
  await expect(page.locator('[data-turn]').last().locator('dl')).toContainText('delivery');
});

test('keep a conversation as a walkthrough that then runs', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/try`);
  await page.getByRole('button', { name: 'Start anew' }).click();
  await expect(page.locator('[data-turn]')).toHaveCount(0);
  await say(page, 'what are your opening hours');
  await page.getByRole('button', { name: 'Keep as a walkthrough' }).click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('opening times only');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('opening times only')).toBeVisible();
  await expect(page.getByRole('link', { name: /^Try/ })).toContainText('9 of 9');
  await page.getByText('opening times only').click();
  await page.getByRole('button', { name: 'Delete the walkthrough opening times only' }).click();
  await expect(page.getByRole('link', { name: /^Try/ })).toContainText('8 of 8');
});

test('nothing said three times leads to the desk', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/try`);
  await page.getByRole('button', { name: 'Start anew' }).click();
  for (let count = 1; count <= 3; count++) {
    await page.getByRole('button', { name: 'Say nothing' }).click();
    await expect(page.locator('[data-turn]')).toHaveCount(count);
  }
  await expect(page.locator('[data-turn]').last()).toContainText('hands over to front_desk');
  await expect(page.getByRole('button', { name: 'Say nothing' })).toBeDisabled();
});

test('a required slot without a prompt is told in the margin and in the stage line', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/say?form=order_cancel`);
  await page.getByRole('button', { name: 'Add a slot' }).click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('reason');
  await page.getByRole('button', { name: 'Add the slot' }).click();
  await expect(page.getByText('reason is required and has no prompt.')).toBeVisible();
  await expect(page.getByRole('link', { name: /^Say/ })).toContainText('1 missing');
  await page.getByLabel('Entity of reason').selectOption('complaint_detail');
  await page.getByRole('textbox', { name: 'Prompts of reason' }).fill('May I ask why?');
  await page.getByRole('textbox', { name: 'Prompts of reason' }).press('Tab');
  await expect(page.getByText('reason is required and has no prompt.')).toHaveCount(0);
  await modelCurrent(page);
  await expect(page.getByRole('region', { name: 'Read-through' })).toContainText('May I ask why?');
  await page.getByRole('button', { name: 'Move reason up' }).click();
  await expect(page.locator('[data-slot]').first()).toHaveAttribute('data-slot', 'reason');
  await page.getByLabel('reason is required').uncheck();
  await page.getByRole('button', { name: 'Delete reason' }).click();
  await expect(page.locator('[data-slot]')).toHaveCount(1);
});

test('renaming a slot renames it wherever it stands', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/say?form=order_lookup`);
  const name = page.getByRole('textbox', { name: 'Name of slot order_no' });
  await name.fill('number');
  await name.press('Tab');
  await expect(page.getByRole('textbox', { name: 'Name of slot number' })).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Done' })).toHaveValue(/about \{number\}/);
  await visit(page, `${server.url}/bots/1/teach?intent=order_status`);
  await expect(page.locator('[data-row="0"] [data-gloss=number]')).toBeVisible();
});

test('the link to the texts of the whole bot moves the column, not the frame', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/say`);
  await page.getByRole('link', { name: 'No match, greeting, desks' }).click();
  await expect(page.getByRole('heading', { name: 'Greeting and no match' })).toBeInViewport();
  await expect(page.getByRole('button', { name: 'Undo', exact: true })).toBeInViewport();
  expect(await page.evaluate(() => document.scrollingElement!.scrollTop)).toBe(0);
});

test('a condition, the texts of a form, a desk and the no-match texts are kept', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/say?form=visit_booking`);
  await page.getByLabel('Ask for email only when').selectOption('visit_kind');
  await page.getByLabel('Value of visit_kind for which email is asked').fill('pruning class');
  await page.getByLabel('Value of visit_kind for which email is asked').press('Tab');
  await page.getByRole('textbox', { name: 'Decline' }).fill('What is wrong?\nWhich part is wrong?');
  await page.getByRole('textbox', { name: 'Decline' }).press('Tab');
  await page.getByRole('button', { name: 'Add a desk' }).click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('tea_room');
  await page.getByRole('button', { name: 'Add the desk' }).click();
  await page.getByLabel('Then to desk').selectOption('tea_room');
  await page.getByLabel('Tries').fill('2');
  await page.getByLabel('Tries').press('Tab');
  await page.getByRole('textbox', { name: 'Confirmation' }).fill('{day} for {people');
  await page.getByRole('textbox', { name: 'Confirmation' }).press('Tab');
  await expect(page.getByText(/cannot be read as a message/)).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Value of visit_kind for which email is asked')).toHaveValue('pruning class');
  await expect(page.getByRole('textbox', { name: 'Decline' })).toHaveValue('What is wrong?\nWhich part is wrong?');
  await expect(page.getByLabel('Then to desk')).toHaveValue('tea_room');
  await expect(page.getByLabel('Tries')).toHaveValue('2');
  await expect(page.getByRole('textbox', { name: 'Confirmation' })).toHaveValue(/^\{visit_kind\} on/);
});

test('a new form for an intent, and the desk it leads to', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=stock_check`);
  await page.getByRole('combobox', { name: 'Form', exact: true }).selectOption('+');
  await expect(page.getByRole('heading', { name: 'stock_check_form', exact: true })).toBeVisible();
  await expect(page.getByText('The form has no slots.')).toBeVisible();
  await page.getByRole('button', { name: 'Delete', exact: true }).first().click();
  await expect(page.getByRole('link', { name: /stock_check_form/ })).toHaveCount(0);
  await visit(page, `${server.url}/bots/1/teach?intent=stock_check`);
  await expect(page.locator('[data-row="0"] [data-gloss=plant]')).toBeVisible();
});
