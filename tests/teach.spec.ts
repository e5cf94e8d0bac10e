import { expect, test, type Page } from '@playwright/test';
import { startServer, type RunningServer } from './server.js';
import { modelCurrent, openBot, probe, visit, pick } from './screen.js';

let server: RunningServer;

test.beforeAll(async () => {
  server = await startServer('demo');
});

test.afterAll(() => server.remove());

const TWELVE = [
  'do you rent out marquees',
  'can I hire a tent for my garden party',
  'how do I book a gazebo for the weekend',
  'hire of a big marquee for 80 guests',
  "we'd like to rent some tables and a tent",
  'is there a marquee free on Saturday',
  'marquee hire please',
  'need a canopy for a christening',
  'could you put up a tent on our lawn',
  'I want to borrow a pavilion for a fete',
  'renting a marquee, how does it work',
  'a tent for the summer fair',
].join('\n');

test('make an intent, paste twelve utterances, mark a slot, and the probe recognises a new sentence', async ({
  page,
}) => {
  await openBot(page, server.url, 'Lantern Marsh Nursery');
  await page.getByRole('button', { name: 'New intent' }).click();
  await page.getByRole('textbox', { name: 'Name of the new intent' }).fill('hire_marquee');
  await page.getByRole('button', { name: 'Make', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'hire_marquee', exact: true })).toBeVisible();

  const add = page.getByRole('textbox', { name: 'New utterance' });
  await add.focus();
  await page.evaluate((text) => {
    const data = new DataTransfer();
    data.setData('text/plain', text);
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, TWELVE);
  await expect(page.getByRole('grid')).toHaveAttribute('aria-rowcount', '12');

  const row = page.locator('[data-row="5"]');
  await row.getByText('is there a marquee free on Saturday').click();
  const panel = page.getByRole('region', { name: 'Mark words of row 6' });
  await panel.getByRole('button', { name: 'Saturday' }).click();
  await panel.getByRole('button', { name: 'day', exact: true }).click();
  await expect(row.locator('[data-gloss=day]')).toBeVisible();

  await modelCurrent(page);
  await probe(page, 'could we rent one of your tents on Friday');
  await expect(page.getByTestId('probe-decision')).toContainText('hire_marquee');
  await expect(page.getByRole('region', { name: 'Probe' }).locator('[data-gloss=day]')).toBeVisible();
});

test('mark words by keys alone', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=stock_check`);
  await page.locator('[data-row="13"]').scrollIntoViewIfNeeded();
  await page.locator('[data-row="13"]').focus();
  await page.keyboard.press('m');
  const panel = page.getByRole('region', { name: 'Mark words of row 14' });
  await expect(panel.locator('[data-word="0"]')).toBeFocused();
  for (let word = 0; word < 3; word++) await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Space');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(panel.getByText('Mark “seeds as” as')).toBeVisible();
  await panel.getByRole('button', { name: 'plant', exact: true }).press('Enter');
  await expect(page.locator('[data-row="13"] [data-gloss=plant]')).toBeVisible();
  await expect(page.getByText('is no value of plant (row 14)')).toBeVisible();
  await page.getByRole('button', { name: 'Take the mark plant away' }).click();
  await expect(page.locator('[data-row="13"] [data-gloss=plant]')).toHaveCount(0);
});

test('select words with the pointer to mark them', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=voucher`);
  const words = page.locator('[data-row="0"] .gloss');
  const box = (await words.boundingBox())!;
  await page.mouse.move(box.x + 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width - 2, box.y + box.height / 2, { steps: 6 });
  await page.mouse.up();
  await expect(page.getByText('Mark “can I buy a gift voucher” as')).toBeVisible();
});

test('edit a row in place, go on to the next, and undo it after a reload', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=find_us`);
  await page.locator('[data-row="0"]').focus();
  await page.keyboard.press('Enter');
  const editor = page.getByRole('textbox', { name: 'Utterance 1', exact: true });
  await editor.fill('where on earth are you');
  await editor.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Utterance 2', exact: true })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.locator('[data-row="0"]')).toContainText('where on earth are you');
  await page.reload();
  await page.locator('html[data-ready]').waitFor();
  await page.locator('[data-row="1"]').focus();
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-row="0"]')).toHaveText(/where are you/);
  await page.keyboard.press('Control+Shift+z');
  await expect(page.locator('[data-row="0"]')).toContainText('where on earth are you');
  await page.keyboard.press('Control+z');
  await expect(page.locator('[data-row="0"]')).toHaveText(/where are you/);
});

test('move and delete several rows at once, each with undo', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=delivery_question`);
  const grid = page.getByRole('grid');
  await expect(grid).toHaveAttribute('aria-rowcount', '14');
  await page.locator('[data-row="0"]').focus();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(page.getByText('3 rows selected')).toBeVisible();
  await pick(page, 'Move the selected rows to', 'price_question');
  await expect(grid).toHaveAttribute('aria-rowcount', '11');
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect(grid).toHaveAttribute('aria-rowcount', '14');

  await page.getByRole('checkbox', { name: 'Select row 2' }).check({ force: true });
  await page.getByRole('button', { name: 'Delete rows' }).click();
  await expect(grid).toHaveAttribute('aria-rowcount', '13');
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click();
  await expect(grid).toHaveAttribute('aria-rowcount', '14');
});

test('an act that cannot be done is refused in a sentence and changes nothing', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=order_plants`);
  const add = page.getByRole('textbox', { name: 'New utterance' });
  await add.fill('two <plnt>roses</plnt>');
  await add.press('Enter');
  await expect(page.getByText(/there is no slot or entity "plnt"; did you mean "plant"/)).toBeVisible();
  await expect(add).toHaveValue('two <plnt>roses</plnt>');
  await expect(page.getByRole('grid')).toHaveAttribute('aria-rowcount', '16');
});

test('of a pasted list the good lines are kept, and a bad one stays with its reason', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=voucher`);
  const grid = page.getByRole('grid');
  const before = Number(await grid.getAttribute('aria-rowcount'));
  const add = page.getByRole('textbox', { name: 'New utterance' });
  await add.focus();
  await page.evaluate((text) => {
    const data = new DataTransfer();
    data.setData('text/plain', text);
    const paste = new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true });
    document.activeElement!.dispatchEvent(paste);
  }, '- a voucher for my aunt\n2. is there a <b>gift</b> card\n• a voucher for <day>Friday\n- I <3 vouchers');
  await expect(grid).toHaveAttribute('aria-rowcount', String(before + 3));
  await expect(grid).toContainText('is there a <b>gift</b> card');
  await expect(grid).toContainText('a voucher for my aunt');
  await expect(add).toHaveValue('a voucher for <day>Friday');
  await expect(page.getByText(/<day> is not closed/)).toBeVisible();
  await add.fill('');
  for (let undo = 0; undo < 1; undo++) await page.getByRole('button', { name: 'Undo', exact: true }).first().click();
  await expect(grid).toHaveAttribute('aria-rowcount', String(before));
});

for (const pause of [20, 60, 120, 250]) {
  test(`typing on at ${pause} ms a key loses no letter while the server is slow`, async ({ page }) => {
    await page.route('**/acts', async (route) => {
      await new Promise((resolve) => setTimeout(resolve, 500));
      await route.continue();
    });
    await visit(page, `${server.url}/bots/1/teach?intent=voucher`);
    const grid = page.getByRole('grid');
    const before = Number(await grid.getAttribute('aria-rowcount'));
    await page.getByRole('textbox', { name: 'New utterance' }).focus();
    const lines = [`shut when ${pause}`, `hi ${pause}`, `you have been a star ${pause}`];
    for (const line of lines) {
      await page.keyboard.type(line, { delay: pause });
      // Pressed three times, it adds once.
      for (let press = 0; press < 3; press++) await page.keyboard.press('Enter');
    }
    await expect(grid).toHaveAttribute('aria-rowcount', String(before + 3));
    for (const line of lines) await expect(grid.getByText(line, { exact: true })).toHaveCount(1);
    await visit(page, `${server.url}/bots/1/teach/entities?entity=symptom`);
    const values = page.getByRole('textbox', { name: /^Value \d+$/ });
    const count = await values.count();
    await page.getByRole('textbox', { name: 'New value' }).focus();
    for (const value of [`grips ${pause}`, `bells ${pause}`]) {
      await page.keyboard.type(value, { delay: pause });
      for (let press = 0; press < 3; press++) await page.keyboard.press('Enter');
    }
    await expect(values).toHaveCount(count + 2);
    await expect(page.getByRole('textbox', { name: `Value ${count + 1}`, exact: true })).toHaveValue(`grips ${pause}`);
    await expect(page.getByRole('textbox', { name: `Value ${count + 2}`, exact: true })).toHaveValue(`bells ${pause}`);
  });
}

test('another kind is asked about before values are lost, and values may hold commas', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach/entities?entity=size`);
  const add = page.getByRole('textbox', { name: 'New value' });
  await add.fill('"huge, really", enormous');
  await add.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Value 5', exact: true })).toHaveValue('huge, really');
  await expect(page.getByRole('textbox', { name: 'Synonyms of huge, really' })).toHaveValue('enormous');
  const kind = page.getByRole('combobox', { name: 'Kind' });
  await kind.selectOption('free');
  await expect(page.getByText('As free size would lose 5 values.')).toBeVisible();
  await expect(kind).toHaveValue('list');
  await page.getByRole('button', { name: 'Keep it as it is' }).click();
  await expect(page.getByRole('textbox', { name: 'Value 1', exact: true })).toHaveValue('small');
  await page.getByRole('button', { name: 'Undo', exact: true }).first().click();
  await expect(page.getByRole('textbox', { name: 'Value 5', exact: true })).toHaveCount(0);
});

test('how customers hear an intent named is its own text, proposed from the name', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=voucher`);
  const called = page.getByRole('textbox', { name: 'Called' });
  await expect(called).toHaveValue('ask about vouchers');
  await called.fill('');
  await called.press('Tab');
  await expect(called).toHaveAttribute('placeholder', /^voucher \(/);
  await visit(page, `${server.url}/bots/1/teach?intent=thanks_goodbye`);
  await expect(page.getByRole('checkbox', { name: 'offered in clarifications and help' })).not.toBeChecked();
});

test('what is being typed outlives a refresh of the screen', async ({ page, request }) => {
  // So many new texts keep the model catching up while the page loads; it is refreshed when the model is there.
  const utterances = Array.from({ length: 200 }, (_, index) => `is the gate open on day ${index}`);
  const url = `${server.url}/api/bots/1/acts`;
  const ids = utterances.map((_, index) => `day-${index}`);
  await request.post(url, { data: { do: 'addUtterances', intent: 'opening_hours', utterances, ids } });
  await visit(page, `${server.url}/bots/1/teach?intent=opening_hours`);
  const means = page.getByRole('textbox', { name: 'Means' });
  await means.fill('When the gates are open');
  await expect(page.locator('[data-state="catching up"]')).toBeVisible();
  await modelCurrent(page);
  await expect(means).toHaveValue('When the gates are open');
  await means.press('Tab');
  await expect(page.getByTitle('Undo: change opening_hours (Ctrl Z)')).toBeVisible();
  await means.fill('a text that is taken back');
  await means.press('Escape');
  await expect(means).toHaveValue('When the gates are open');
  const rows = utterances.map((was, index) => ({ id: ids[index], was }));
  const undone = await request.post(url, { data: { do: 'deleteUtterances', rows } });
  expect(undone.ok()).toBe(true);
});

test('what is being typed is kept when the person goes elsewhere', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=find_us`);
  const means = page.getByRole('textbox', { name: 'Means' });
  await means.fill('Where the nursery lies');
  await page.keyboard.press('Alt+Digit3');
  await expect(page.getByRole('heading', { name: 'plant_order', exact: true })).toBeVisible();
  await visit(page, `${server.url}/bots/1/teach?intent=find_us`);
  await expect(means).toHaveValue('Where the nursery lies');
  await means.fill('Where it lies');
  await page.reload();
  await expect(means).toHaveValue('Where it lies');
});

test('a refresh of the screen takes away neither a name being typed nor picked words', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=opening_hours`);
  let release = () => {};
  const held = new Promise<void>((resolve) => (release = resolve));
  await page.route('**/__data.json*', async (route) => {
    await held;
    await route.continue();
  });
  await page.getByRole('textbox', { name: 'Means' }).fill('Asks when the gates are open');
  await page.getByRole('textbox', { name: 'Means' }).press('Tab');
  await page.locator('[data-word="1"]').click();
  const name = page.getByRole('textbox', { name: 'Name of the intent' });
  await name.fill('gates_open');
  release();
  await expect(page.getByTitle('Undo: change opening_hours (Ctrl Z)')).toBeVisible();
  await expect(name).toHaveValue('gates_open');
  await name.press('Escape');
  await expect(name).toHaveValue('opening_hours');
  await expect(page.locator('[data-word="1"]')).toHaveAttribute('aria-pressed', 'true');
});

test('rename, describe and delete an intent', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=thanks_goodbye`);
  await page.getByRole('textbox', { name: 'Means' }).fill('The customer is done');
  await page.getByRole('textbox', { name: 'Means' }).press('Tab');
  await page.getByRole('textbox', { name: 'Name of the intent' }).fill('farewell');
  await page.getByRole('textbox', { name: 'Name of the intent' }).press('Enter');
  await expect(page.getByRole('heading', { name: 'farewell', exact: true })).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Means' })).toHaveValue('The customer is done');
  await page.getByRole('button', { name: 'Delete the intent farewell' }).click();
  await expect(page.getByRole('link', { name: /farewell/ })).toHaveCount(0);
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: /farewell/ })).toBeVisible();
});

test('entities: new values by pasting, synonyms, a pattern that is checked', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach/entities`);
  await page.getByRole('button', { name: 'New entity' }).click();
  await page.getByRole('textbox', { name: 'Name of the new entity' }).fill('pot_colour');
  await page.getByRole('button', { name: 'Make', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'pot_colour', exact: true })).toBeVisible();
  const value = page.getByRole('textbox', { name: 'New value' });
  await value.focus();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', 'terracotta, clay\nslate grey\nmoss green, green');
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await expect(page.getByRole('textbox', { name: 'Synonyms of terracotta' })).toHaveValue('clay');
  await page.getByRole('textbox', { name: 'Synonyms of slate grey' }).fill('grey, gray');
  await page.getByRole('textbox', { name: 'Synonyms of slate grey' }).press('Tab');
  await page.getByRole('button', { name: 'Delete moss green' }).click();
  await expect(page.getByRole('link', { name: 'pot_colour' })).toContainText('2');
  await page.reload();
  await page.locator('html[data-ready]').waitFor();
  await expect(page.getByRole('textbox', { name: 'Synonyms of slate grey' })).toHaveValue('grey, gray');

  await page.getByRole('link', { name: 'order_no' }).click();
  const pattern = page.getByRole('textbox', { name: 'Pattern' });
  await pattern.fill('LM-(\\d{5}');
  await pattern.press('Tab');
  await expect(page.getByText(/The pattern "LM-\(\\d\{5\}" cannot be read/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^order_no fills slots of/ })).toBeDisabled();
});

test('what the probe read can be taught, and added to a test set', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=opening_hours`);
  await page.keyboard.press('/');
  await expect(page.getByRole('textbox', { name: /^Probe/ })).toBeFocused();
  await probe(page, 'is anybody there on a Tuesday');
  await page.keyboard.press('Enter');
  await pick(page, 'Teach it to', 'opening_hours');
  await page.getByRole('button', { name: 'Teach', exact: true }).click();
  await expect(page.getByRole('grid')).toHaveAttribute('aria-rowcount', '15');
  await page.keyboard.press('/');
  await page.keyboard.press('Enter');
  await pick(page, 'as', 'out of scope');
  await page.getByRole('button', { name: 'Add', exact: true }).last().click();
  await expect(page.getByText('Added to the test set.')).toBeVisible();
});

test('the probe and a turn in Try tell why a message was read as it was', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=order_plants`);
  await modelCurrent(page);
  await probe(page, 'plese send four thyme, not roses');
  await page.getByRole('button', { name: 'Why', exact: true }).click();
  const why = page.getByRole('region', { name: 'Why it was read so' });
  await expect(why.getByText('For order_plants')).toBeVisible();
  await expect(why).toContainText('plese read as please');
  await expect(why).toContainText('thyme is plant thyme: it is a value of plant');
  await expect(why).toContainText('the words beside “roses” rule it out');
  await visit(page, `${server.url}/bots/1/try`);
  const line = page.getByRole('textbox', { name: /^Say/ });
  await line.fill('two lavender please');
  await line.press('Enter');
  await page.locator('[data-turn]').last().getByRole('button', { name: 'Why', exact: true }).click();
  await expect(page.getByRole('region', { name: 'Why it was read so' })).toContainText('Nearest utterances');
});

test('keys lead to the stages and to everything by name', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach`);
  await page.keyboard.press('Alt+3');
  await expect(page.getByRole('heading', { name: 'plant_order', exact: true })).toBeVisible();
  await page.keyboard.press('Alt+5');
  await expect(page.getByRole('heading', { name: /Conversation/ })).toBeVisible();
  await page.keyboard.press('Alt+6');
  await expect(page.getByRole('heading', { name: 'Prove' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('trouble');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'plant_trouble', exact: true })).toBeVisible();
});

test('a sheet of ten thousand rows keeps few of them on the page', async ({ page, request }) => {
  const utterances = Array.from({ length: 10_000 }, (_, index) => `message number ${index}`);
  await request.post(`${server.url}/api/bots`, { data: { name: 'Large' } });
  const list = await request.get(`${server.url}/api/health`);
  const { models } = (await list.json()) as { models: { bot: number; name: string }[] };
  const id = models.find((model) => model.name === 'Large')!.bot;
  await request.post(`${server.url}/api/bots/${id}/acts`, { data: { do: 'addIntent', name: 'many' } });
  const added = await request.post(`${server.url}/api/bots/${id}/acts`, {
    data: { do: 'addUtterances', intent: 'many', utterances },
  });
  expect(added.ok()).toBe(true);
  await visit(page, `${server.url}/bots/${id}/teach`);
  await expect(page.getByRole('grid')).toHaveAttribute('aria-rowcount', '10000');
  await page.locator('[data-row="0"]').focus();
  await page.keyboard.press('End');
  await expect(page.locator('[data-row="9999"]')).toBeFocused();
  expect(await page.locator('[data-row]').count()).toBeLessThan(80);
});

/** Keeps acts from the server. @returns what lets them go on */
async function holdActs(page: Page): Promise<() => void> {
  let release = () => {};
  const held = new Promise<void>((resolve) => (release = resolve));
  await page.route('**/acts', async (route) => {
    await held;
    await route.continue();
  });
  return release;
}

test('rows stand in the sheet before the server has answered, and what it refuses comes back into the field', async ({
  page,
}) => {
  await visit(page, `${server.url}/bots/1/teach?intent=price_question`);
  const rows = page.getByRole('grid');
  const before = Number(await rows.getAttribute('aria-rowcount'));
  const release = await holdActs(page);
  const add = page.getByRole('textbox', { name: 'New utterance' });
  await add.fill('what is the  <plant>fern</plant> today');
  await add.press('Enter');
  await expect(rows).toHaveAttribute('aria-rowcount', String(before + 1));
  await expect(page.locator(`[data-row="${before}"] [data-gloss=plant]`)).toBeVisible();
  await page.locator('[data-row="0"]').focus();
  await page.keyboard.press('Delete');
  await expect(rows).toHaveAttribute('aria-rowcount', String(before));
  release();
  await expect(page.getByTitle(/^Undo: delete 1 utterance of price_question/)).toBeVisible();
  await expect(rows).toHaveAttribute('aria-rowcount', String(before));

  await page.unroute('**/acts');
  await page.route('**/acts', (route) =>
    route.fulfill({ status: 503, json: { message: 'The disk is full.', faults: [], number: 0 } }),
  );
  await add.fill('how much is a bag of bark');
  await add.press('Enter');
  await expect(page.getByText('The disk is full.')).toBeVisible();
  await expect(add).toHaveValue('how much is a bag of bark');
  await expect(rows).toHaveAttribute('aria-rowcount', String(before));
});

test('values and slots stand where they were put before the server has answered', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach/entities?entity=size`);
  const values = page.getByRole('table', { name: 'Values of size' });
  const before = Number(await values.getAttribute('aria-rowcount'));
  let release = await holdActs(page);
  const add = page.getByRole('textbox', { name: 'New value' });
  await add.fill('enormous, very big');
  await add.press('Enter');
  await expect(values).toHaveAttribute('aria-rowcount', String(before + 1));
  await page.getByRole('textbox', { name: 'Synonyms of enormous' }).fill('very big, huge');
  await page.getByRole('button', { name: 'Delete enormous' }).focus();
  const second = await page.getByRole('textbox', { name: 'Value 2', exact: true }).inputValue();
  await page.getByRole('textbox', { name: 'Value 1', exact: true }).press('Shift+Tab');
  await values.getByRole('button').first().press('Enter');
  await expect(values).toHaveAttribute('aria-rowcount', String(before));
  await expect(page.getByRole('button', { name: `Delete ${second}`, exact: true })).toBeFocused();
  release();
  await expect(page.getByTitle(/^Undo: delete 1 value of size/)).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'Synonyms of enormous' })).toHaveValue('very big, huge');

  await page.unroute('**/acts');
  await visit(page, `${server.url}/bots/1/say?form=plant_order`);
  const names = page.getByRole('textbox', { name: /^Name of slot/ });
  const [first, next] = await names.evaluateAll((fields) => fields.map((field) => (field as HTMLInputElement).value));
  release = await holdActs(page);
  const down = page.getByRole('button', { name: `Move ${first} down`, exact: true });
  await down.press('Enter');
  await expect(names.first()).toHaveValue(next!);
  await expect(down).toBeFocused();
  await page.getByRole('button', { name: `Delete ${next}`, exact: true }).click();
  await expect(names.first()).toHaveValue(first!);
  release();
  await expect(page.getByTitle(new RegExp(`^Undo: delete slot ${next}`))).toBeVisible();
  await expect(names.first()).toHaveValue(first!);
});

test('a list of ten thousand values sends those on the screen, and finding leads to the row', async ({
  page,
  request,
}) => {
  const made = await request.post(`${server.url}/api/bots`, { data: { name: 'Long list' } });
  const { id } = (await made.json()) as { id: number };
  const act = (data: object) => request.post(`${server.url}/api/bots/${id}/acts`, { data });
  await act({ do: 'addEntity', name: 'part', kind: 'list' });
  const values = Array.from({ length: 10_000 }, (_, at) => ({ value: `part ${at}`, synonyms: [`piece ${at}`] }));
  expect((await act({ do: 'addValues', entity: 'part', values })).ok()).toBe(true);
  const sent = (await (await request.get(`${server.url}/bots/${id}/teach/entities`)).body()).length;
  expect(sent).toBeLessThan(300_000);
  await visit(page, `${server.url}/bots/${id}/teach/entities`);
  await expect(page.getByRole('textbox', { name: 'Value 1', exact: true })).toHaveValue('part 0');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('piece 7654');
  await page.getByRole('option', { name: /part 7654/ }).click();
  await expect(page.getByRole('textbox', { name: 'Value 7655', exact: true })).toHaveValue('part 7654');
  expect(await page.getByRole('textbox', { name: /^Value / }).count()).toBeLessThan(80);
  const synonyms = page.getByRole('textbox', { name: 'Synonyms of part 7654' });
  await synonyms.fill('piece, bit');
  await synonyms.press('Tab');
  await expect(page.getByTitle(/^Undo: change “part 7654”/)).toBeVisible();
  await expect(synonyms).toHaveValue('piece, bit');
});

test('a note in the margin mends what it remarks on', async ({ page }) => {
  await visit(page, `${server.url}/bots/1/teach?intent=order_plants`);
  const add = page.getByRole('textbox', { name: 'New utterance' });
  await add.fill('two <plant>water avens</plant> please');
  await add.press('Enter');
  const note = page.locator('.notes li', { hasText: '“water avens” is no value of plant' });
  await note.getByRole('button', { name: 'Add it' }).click();
  await expect(note).toHaveCount(0);
  await expect(page.getByTitle(/^Undo: add 1 value to plant/)).toBeVisible();
});
