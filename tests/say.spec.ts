import { expect, test } from '@playwright/test';
import { expectAccessible, lastSaid, modelCurrent, openBot, say, visit } from './screen.js';
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
  await expect(turn).toContainText(/order_plants\s+(?:\.\d\d|1\.00)/);
  await expect(turn.locator('.what')).toContainText('accepted order_plants');
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
  await page.getByRole('textbox', { name: 'Name of the walkthrough' }).fill('opening times only');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.locator('summary', { hasText: 'opening times only' })).toBeVisible();
  await expect(page.getByRole('link', { name: /^Try/ })).toContainText('27 of 27');
  await page.locator('summary', { hasText: 'opening times only' }).click();
  await page.getByRole('button', { name: 'Delete the walkthrough opening times only' }).click();
  await expect(page.getByRole('link', { name: /^Try/ })).toContainText('26 of 26');
  // Undo takes back what was done last, whatever it was.
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByRole('link', { name: /^Try/ })).toContainText('27 of 27');
  await expect(page.locator('summary', { hasText: 'opening times only' })).toHaveCount(1);
});

test('what was said goes into a test set, to be labelled there', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/try`);
  await page.getByRole('button', { name: 'Start anew' }).click();
  for (const text of ['do you have any bay trees', 'no not those', 'do you have any bay trees']) await say(page, text);
  await page.getByRole('button', { name: 'Test with it' }).click();
  await page.getByRole('textbox', { name: 'Test set that the messages go to' }).fill('tried');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Added 2 messages to tried.')).toBeVisible();
  await page.getByRole('button', { name: 'Label them' }).click();
  const rows = page.getByRole('grid', { name: 'Test lines' }).getByRole('row');
  await expect(rows).toHaveCount(2);
  await expect(rows.first()).toContainText('do you have any bay trees');
  await expect(page.getByText('2 without a label, in no figure')).toBeVisible();
});

test('a deleted conversation comes back with undo, and the one before it stands there meanwhile', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/try`);
  await page.getByRole('button', { name: 'Start anew' }).click();
  await expect(page.locator('[data-turn]')).toHaveCount(0);
  await say(page, 'where are you');
  const first = await page.getByRole('heading', { name: /^Conversation/ }).innerText();
  await page.getByRole('button', { name: 'Start anew' }).click();
  await expect(page.locator('[data-turn]')).toHaveCount(0);
  await say(page, 'what do ferns cost');
  await page.getByRole('button', { name: 'Delete the conversation' }).click();
  await expect(page.getByRole('heading', { name: first, exact: true })).toHaveCount(1);
  await expect(page.locator('[data-turn]')).toContainText('where are you');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.locator('[data-turn]')).toContainText('what do ferns cost');
});

test('silence has words of its own, and in the end the bot gives up', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/try`);
  await page.getByRole('button', { name: 'Start anew' }).click();
  for (let count = 1; count <= 3; count++) {
    await page.getByRole('button', { name: 'Say nothing' }).click();
    await expect(page.locator('[data-turn]')).toHaveCount(count);
  }
  await expect(page.locator('[data-turn]').first()).toContainText('Are you still there?');
  await expect(lastSaid(page)).toContainText('I am sorry, I cannot help with that.');
});

test('a required slot without a prompt is told in the margin and in the stage line', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/say?form=order_cancel`);
  await page.getByRole('button', { name: 'Add a slot' }).click();
  await page.getByRole('textbox', { name: 'Name of the new slot' }).fill('reason');
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
  await page.getByLabel('reason is required').uncheck({ force: true });
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

test('after a handover the bot says so once and is silent until it is handed back', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/try`);
  await page.getByRole('button', { name: 'Start anew' }).click();
  await expect(page.locator('[data-turn]')).toHaveCount(0);
  await say(page, 'can I just speak to a person');
  await expect(lastSaid(page)).toContainText('front desk');
  await say(page, 'are you there');
  await expect(lastSaid(page)).toContainText('You are with a colleague now');
  await page.getByRole('button', { name: 'Hand back' }).click();
  await expect(page.getByRole('button', { name: 'Say nothing' })).toBeVisible();
  await say(page, 'where are you');
  await expect(lastSaid(page)).toContainText('Sluice Lane');
});

test('the sentences of the bot stand on a page of their own and can be changed and taken back', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/say`);
  await page.getByRole('link', { name: 'Sentences and desks' }).click();
  await expect(page.getByRole('heading', { name: 'Sentences of the bot' })).toBeVisible();
  const left = page.getByRole('textbox', { name: 'Words for: A form is left' });
  await left.fill('Fine, we let that be, {name}.');
  await left.press('Tab');
  await expect(page.getByText(/there is nothing called “name” here/)).toBeVisible();
  await expect(page.getByRole('link', { name: /^Say/ })).toContainText('1 missing');
  await left.fill('Fine, we let that be.');
  await left.press('Tab');
  await expect(page.getByRole('link', { name: /^Say/ })).toContainText('complete');
  await page.getByRole('button', { name: 'Add a desk' }).click();
  await page.getByRole('textbox', { name: 'Name of the new desk' }).fill('tea_room');
  await page.getByRole('button', { name: 'Add the desk' }).click();
  const tries = page.getByLabel('Failed tries in a row');
  await tries.fill('12');
  await tries.press('Tab');
  await expect(page.getByText('From 1 to 9.')).toBeVisible();
  await tries.press('Escape');
  await expect(tries).toHaveValue('3');
  await tries.fill('2');
  // What another change brings back leaves alone what is being typed.
  await page.evaluate(async () => {
    await fetch('/api/bots/1/acts', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ do: 'changeSettings', to: { greeting: ['Good day.'] } }),
    });
  });
  await expect(page.getByRole('textbox', { name: 'Greeting', exact: true })).toHaveValue('Good day.');
  await tries.press('Tab');
  await modelCurrent(page);
  await page.reload();
  await expect(left).toHaveValue('Fine, we let that be.');
  await expect(tries).toHaveValue('2');
  await expectAccessible(page);
  await visit(page, `${server.url}/bots/1/try`);
  await page.getByRole('button', { name: 'Start anew' }).click();
  await expect(page.locator('[data-turn]')).toHaveCount(0);
  await say(page, 'can I order two large ferns');
  await say(page, 'never mind');
  await expect(lastSaid(page)).toContainText('Fine, we let that be.');
  await visit(page, `${server.url}/bots/1/say/texts`);
  await page.getByRole('button', { name: 'Say the default for: A form is left' }).click();
  await expect(left).toHaveValue('');
  await expect(left).toHaveAttribute('placeholder', 'All right, I have left that.');
});

test('what was typed as the page is left is kept, whether or not its turn had come', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/say/texts`);
  const wordsFor = (when: string) => page.getByRole('textbox', { name: `Words for: ${when}` });
  const fields: [when: string, text: string][] = [
    ['A slot is asked for that has no prompt', 'And the {slot}?'],
    ['A form is left', 'Left as it was.'],
    ['Half a thing is asked for', 'Whole ones only.'],
  ];
  await page.evaluate((all) => {
    for (const [when, text] of all) {
      const field = document.querySelector<HTMLTextAreaElement>(`textarea[aria-label="Words for: ${when}"]`)!;
      field.focus();
      field.value = text;
      field.dispatchEvent(new Event('input', { bubbles: true }));
    }
    location.reload();
  }, fields);
  await page.waitForURL(/say\/texts/);
  for (const [when, text] of fields) await expect(wordsFor(when)).toHaveValue(text);
});

test('a condition is built from rows, and a refused text stays in its field with the reason', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/say?form=visit_booking`);
  await page.getByRole('button', { name: 'Add a condition to email' }).click();
  await expect(page.getByLabel('Slot in condition 1 of email')).toHaveValue('visit_kind');
  await page.getByLabel('Value in condition 1 of email').selectOption('pruning class');
  await page.getByRole('textbox', { name: 'Decline' }).fill('What is wrong?\nWhich part is wrong?');
  await page.getByRole('textbox', { name: 'Decline' }).press('Tab');
  await page.getByLabel('Then to desk').selectOption('gardeners');
  const confirm = page.getByRole('textbox', { name: 'Confirmation' });
  await confirm.fill('{day} for {people');
  await confirm.press('Tab');
  await expect(page.getByText(/Not kept\..*a brace is opened here and not closed/)).toBeVisible();
  await expect(confirm).toHaveValue('{day} for {people');
  await expect(confirm).toHaveAttribute('aria-invalid', 'true');
  await confirm.fill('On {day}?');
  await confirm.press('Tab');
  await expect(page.getByText(/Not kept/)).toHaveCount(0);
  // A confirmation can be taken off again.
  await confirm.fill('');
  await confirm.press('Tab');
  await modelCurrent(page);
  await page.reload();
  await expect(page.getByLabel('Value in condition 1 of email')).toHaveValue('pruning class');
  await expect(page.getByRole('textbox', { name: 'Decline' })).toHaveValue('What is wrong?\nWhich part is wrong?');
  await expect(page.getByLabel('Then to desk')).toHaveValue('gardeners');
  await expect(confirm).toHaveValue('');
  await expectAccessible(page);
});

test('what may be inserted stands at hand in a text field', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/say?form=trade_application`);
  const done = page.getByRole('textbox', { name: 'Done' });
  await done.fill('Thank you, ');
  await page.getByText('Insert into Done').click();
  await page.getByRole('button', { name: '{business}' }).last().click();
  await expect(done).toHaveValue('Thank you, {business}');
  await done.press('Tab');
  await page.reload();
  await expect(done).toHaveValue('Thank you, {business}');
});

test('a value that is called otherwise keeps its condition', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach/entities?entity=handover`);
  const value = page.getByRole('textbox', { name: 'Value 1', exact: true });
  await value.fill('by van');
  await value.press('Tab');
  await visit(page, `${server.url}/bots/1/say?form=plant_order`);
  await expect(page.getByLabel('Value in condition 1 of address')).toHaveValue('by van');
});

test('the settings of a bot can be changed and are checked', async ({ page }) => {
  await visit(page, `${server.url}/bots/2/try`);
  await page.getByRole('link', { name: 'Tarnby Waste Desk' }).click();
  const zone = page.getByRole('textbox', { name: 'Time zone' });
  await zone.fill('Mars/Base');
  await zone.press('Tab');
  await expect(page.getByText(/Not kept\..*is no time zone/)).toBeVisible();
  await zone.fill('Europe/Dublin');
  await zone.press('Tab');
  const name = page.getByRole('textbox', { name: 'Name', exact: true });
  await name.fill('Tarnby bins');
  await name.press('Tab');
  await expect(page.getByRole('link', { name: 'Tarnby bins' })).toBeVisible();
  await page.reload();
  await expect(zone).toHaveValue('Europe/Dublin');
  await expectAccessible(page);
});

test('a new form for an intent, and the desk it leads to', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=stock_check`);
  await page.getByRole('combobox', { name: 'Form', exact: true }).selectOption('+');
  await expect(page.getByRole('heading', { name: 'stock_check_form', exact: true })).toBeVisible();
  await expect(page.getByText('The form has no slots.')).toBeVisible();
  await page.getByRole('button', { name: 'Delete the form stock_check_form' }).click();
  await expect(page.getByRole('link', { name: /stock_check_form/ })).toHaveCount(0);
  await visit(page, `${server.url}/bots/1/teach?intent=stock_check`);
  await expect(page.locator('[data-row="0"] [data-gloss=plant]')).toBeVisible();
});
