import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Kysely } from 'kysely';
import { teaShop } from '../../../tests/teaShop.js';
import { openDatabase } from '../database/open.js';
import type { Database } from '../database/schema.js';
import { createBot, loadBot, saveAct, stepHistory, type StoredBot } from './bots.js';
import { readBotFile, writeBotFile } from '../../core/formats/botFile.js';
import type { BotDocument, JsonLogicRule } from '../../core/bot/document.js';
import { TEXT_NAMES } from '../../core/say/texts.js';
import { applyEdit, EditError, type Edit } from '../../core/bot/edit.js';
import { validateReferences } from '../../core/bot/validate.js';

const AT = '2026-03-04T09:30:00.000Z';

/** A word, drawn from few so that acts meet each other. */
const name = fc.constantFrom(
  'order_tea',
  'opening_hours',
  'cancel_order',
  'praise',
  'complain',
  'amount',
  'tea',
  'size',
  'way',
  'order',
  'cancellation',
  'Tee',
  'a b',
  '',
);
const line = fc.constantFrom(
  'two <tea>mint tea</tea>',
  'open now',
  '<way>collect</way> it',
  'a & b < c',
  '<tea>broken',
  '  spaced   out ',
  '',
);

const value = fc.constantFrom('mint tea', 'green tea', 'black tea', 'oat', '');

const message = fc.constantFrom(
  '{amount, plural, one {# box} other {# boxes of {tea}}}',
  '<b>{way}</b>',
  'Thanks {',
  '{constructor}',
  '',
);
const condition = fc.constantFrom<JsonLogicRule[]>(
  { '==': [{ var: 'way' }, 'collect'] },
  { missing: ['way'] },
  { '!!': { var: ['tea', 'x'] } },
  { map: [1] },
);

/** An act upon whatever the bot holds at the time; many cannot be done, and those must change nothing. */
const act = fc.oneof(
  fc.record({ do: fc.constant('addIntent' as const), name }),
  fc.record({ do: fc.constant('deleteIntents' as const), names: fc.array(name, { minLength: 1, maxLength: 2 }) }),
  fc.record({
    do: fc.constant('changeIntent' as const),
    name,
    to: fc.record({ name, form: fc.option(name), description: fc.option(line) }, { requiredKeys: [] }),
  }),
  fc.record({
    do: fc.constant('addUtterances' as const),
    intent: name,
    at: fc.nat(8),
    utterances: fc.array(line, { minLength: 1, maxLength: 3 }),
  }),
  fc.record({
    do: fc.constant('addValues' as const),
    entity: name,
    values: fc.array(
      fc.record({
        value: fc.constantFrom('white tea, silver', 'mint tea', 'oat'),
        synonyms: fc.array(value, { maxLength: 1 }),
      }),
      {
        minLength: 1,
        maxLength: 2,
      },
    ),
  }),
  fc.record({
    do: fc.constant('changeForm' as const),
    name,
    to: fc.record(
      { confirm: fc.option(message), onNo: fc.option(fc.constantFrom('change' as const, 'leave' as const)) },
      { requiredKeys: [] },
    ),
  }),
  fc.record({
    do: fc.constant('changeSlot' as const),
    form: name,
    slot: name,
    to: fc.record(
      {
        when: fc.option(condition),
        several: fc.option(fc.boolean()),
        default: fc.option(fc.constantFrom('mint tea', 3)),
        prompts: message,
      },
      { requiredKeys: [] },
    ),
  }),
  fc.record({ do: fc.constant('changeText' as const), text: fc.constantFrom(...TEXT_NAMES), to: fc.option(message) }),
  fc.record({ do: fc.constant('renameSlot' as const), form: name, from: name, to: name }),
  fc.record({ do: fc.constant('addForm' as const), name, intent: name }),
  fc.record({ do: fc.constant('deleteForm' as const), name }),
  fc.record({ do: fc.constant('deleteValues' as const), entity: name, values: fc.array(value, { maxLength: 2 }) }),
  fc.record({
    do: fc.constant('changeValue' as const),
    entity: name,
    value,
    to: fc.record({ value, synonyms: fc.array(value, { maxLength: 2 }) }, { requiredKeys: [] }),
  }),
  fc.record({ do: fc.constant('moveSlot' as const), form: name, slot: name, by: fc.constantFrom(-1, 1) }),
  fc.record({ do: fc.constant('deleteSlot' as const), form: name, slot: name }),
  fc.record({ do: fc.constant('deleteEntity' as const), name }),
  fc.record({
    do: fc.constant('changeSettings' as const),
    to: fc.record(
      {
        name: fc.constantFrom('Tea house', 'Tea shop', ' '),
        timeZone: fc.constantFrom('Europe/Dublin', 'Mars/Base'),
        region: fc.constantFrom('GB', 'nowhere'),
        languages: fc.constantFrom(['en'], ['xx_bad']),
      },
      { requiredKeys: [] },
    ),
  }),
);

/** Acts that name rows need the row's words, which only the bot of the moment has. */
function rowAct(document: BotDocument, pick: number): Edit | null {
  const intents = document.intents.filter((intent) => intent.utterances.length > 0);
  const from = intents[pick % Math.max(1, intents.length)];
  const to = document.intents[(pick + 1) % Math.max(1, document.intents.length)];
  if (!from || !to) return null;
  const index = pick % from.utterances.length;
  const rows = [{ index, was: from.utterances[index]! }];
  if (pick % 3 === 0) return { do: 'deleteUtterances', intent: from.name, rows };
  if (pick % 3 === 1) return { do: 'moveUtterances', intent: from.name, rows, to: to.name };
  return { do: 'changeUtterance', intent: from.name, row: rows[0]!, to: `${rows[0]!.was} then` };
}

const acts = fc.array(fc.oneof({ weight: 3, arbitrary: act }, { weight: 2, arbitrary: fc.nat(50) }), { maxLength: 14 });

type WantedAct = typeof act extends fc.Arbitrary<infer One> ? One : never;

function attempt(document: BotDocument, wanted: WantedAct | number): { document: BotDocument; label: string } | null {
  // Parts that are left out are missing in what is drawn, never undefined.
  const edit = typeof wanted === 'number' ? rowAct(document, wanted) : (wanted as Edit);
  if (!edit) return null;
  try {
    return applyEdit(document, edit);
  } catch (error) {
    expect(error).toBeInstanceOf(EditError);
    return null;
  }
}

describe('whatever is done to a bot', () => {
  it('leaves a document without faults that its file gives back', () => {
    fc.assert(
      fc.property(acts, (wanted) => {
        let document = teaShop();
        for (const one of wanted) {
          const frozen = structuredClone(document);
          const done = attempt(document, one);
          expect(document).toEqual(frozen);
          document = done?.document ?? document;
          expect(validateReferences(document)).toEqual([]);
        }
        expect(readBotFile(writeBotFile(document, 'yaml'))).toEqual({ ok: true, document });
      }),
      { numRuns: 60 },
    );
  });

  describe('and kept in the database', () => {
    let db: Kysely<Database>;

    beforeAll(async () => {
      db = await openDatabase(':memory:');
    });

    afterAll(() => db.destroy());

    it('can be undone to the beginning and done again to the end', async () => {
      await fc.assert(
        fc.asyncProperty(acts, async (wanted) => {
          const first = await loadBot(db, await createBot(db, teaShop(), AT));
          let bot: StoredBot = first;
          for (const one of wanted) {
            const done = attempt(bot.document, one);
            if (done) bot = await saveAct(db, bot, done.document, { label: done.label, at: AT });
          }
          const last = bot.document;
          expect((await loadBot(db, bot.id)).document).toEqual(last);
          for (let step = await stepHistory(db, bot, 'undo', AT); step; step = await stepHistory(db, bot, 'undo', AT))
            bot = step.bot;
          expect((await loadBot(db, bot.id)).document).toEqual(first.document);
          for (let step = await stepHistory(db, bot, 'redo', AT); step; step = await stepHistory(db, bot, 'redo', AT))
            bot = step.bot;
          expect((await loadBot(db, bot.id)).document).toEqual(last);
        }),
        { numRuns: 25 },
      );
    });
  });
});
