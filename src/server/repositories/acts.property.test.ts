import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Kysely } from 'kysely';
import { AT } from '../../../tests/context.js';
import { teaShop } from '../../../tests/teaShop.js';
import { openDatabase } from '../database/open.js';
import type { Database } from '../database/schema.js';
import { createBot, loadBot, saveAct, stepHistory, type StoredBot } from './bots.js';
import { readBotFile, writeBotFile } from '../../core/formats/botFile.js';
import type { BotDocument, JsonLogicRule } from '../../core/bot/document.js';
import { TEXT_NAMES } from '../../core/say/engineTexts.js';
import { ActError, applyAct, type BotAct, type Done } from '../../core/bot/acts/index.js';
import { fileOf } from '../../core/bot/file.js';
import { writeMarking } from '../../core/bot/marking.js';
import { countingIds } from '../../../tests/acting.js';
import { validateReferences } from '../../core/bot/validate.js';

const BY = { actor: 'me', at: AT };

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

const slotId = fc.constantFrom('s1', 's2', 's3', 's4', 's5', 's6', 's7', 'new1');
const valueId = fc.constantFrom('v1', 'v2', 'v3', 'v4', 'v6', 'new2');

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
    after: fc.constantFrom(null, 'u1', 'u2', 'u8', 'u14', 'u99'),
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
    slot: slotId,
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
  fc.record({ do: fc.constant('renameSlot' as const), slot: slotId, to: name }),
  fc.record({ do: fc.constant('addForm' as const), name, intent: name }),
  fc.record({ do: fc.constant('deleteForm' as const), name }),
  fc.record({ do: fc.constant('deleteValues' as const), ids: fc.array(valueId, { maxLength: 2 }) }),
  fc.record({
    do: fc.constant('changeValue' as const),
    id: valueId,
    to: fc.record({ value, synonyms: fc.array(value, { maxLength: 2 }) }, { requiredKeys: [] }),
  }),
  fc.record({ do: fc.constant('moveSlot' as const), slot: slotId, by: fc.constantFrom(-1, 1) }),
  fc.record({ do: fc.constant('deleteSlot' as const), slot: slotId }),
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
function rowAct(document: BotDocument, pick: number): BotAct | null {
  const intents = document.intents.filter((intent) => intent.utterances.length > 0);
  const from = intents[pick % Math.max(1, intents.length)];
  const to = document.intents[(pick + 1) % Math.max(1, document.intents.length)];
  if (!from || !to) return null;
  const line = from.utterances[pick % from.utterances.length]!;
  const rows = [{ id: line.id, was: writeMarking(line) }];
  if (pick % 3 === 0) return { do: 'deleteUtterances', rows };
  if (pick % 3 === 1) return { do: 'moveUtterances', rows, to: to.name };
  return { do: 'changeUtterance', row: rows[0]!, to: `${rows[0]!.was} then` };
}

const acts = fc.array(fc.oneof({ weight: 3, arbitrary: act }, { weight: 2, arbitrary: fc.nat(50) }), { maxLength: 14 });

type WantedAct = typeof act extends fc.Arbitrary<infer One> ? One : never;

const actOf = (document: BotDocument, wanted: WantedAct | number): BotAct | null =>
  typeof wanted === 'number' ? rowAct(document, wanted) : (wanted as BotAct);

function attempt(document: BotDocument, one: BotAct | null, newId: () => string): Done | null {
  if (!one) return null;
  try {
    return applyAct(document, one, { newId });
  } catch (error) {
    expect(error).toBeInstanceOf(ActError);
    return null;
  }
}

describe('whatever is done to a bot', () => {
  it('leaves a document without faults that its file gives back', () => {
    fc.assert(
      fc.property(acts, (wanted) => {
        let document = teaShop();
        const newId = countingIds();
        for (const one of wanted) {
          const frozen = structuredClone(document);
          const done = attempt(document, actOf(document, one), newId);
          expect(document).toEqual(frozen);
          document = done?.document ?? document;
          expect(validateReferences(document)).toEqual([]);
        }
        const result = readBotFile(writeBotFile(document, 'yaml'));
        expect(result.ok && fileOf(result.document)).toEqual(fileOf(document));
        const ids = document.intents.flatMap(({ utterances }) => utterances.map(({ id }) => id));
        expect(new Set(ids).size).toBe(ids.length);
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
          const newId = countingIds();
          let bot: StoredBot = first;
          for (const one of wanted) {
            const chosen = actOf(bot.document, one);
            const done = attempt(bot.document, chosen, newId);
            if (chosen && done) bot = await saveAct(db, bot, { act: chosen, done }, BY);
            expect((await loadBot(db, bot.id)).document).toEqual(bot.document);
          }
          const last = bot.document;
          const all = async (direction: 'undo' | 'redo') => {
            for (;;) {
              const step = await stepHistory(db, bot, BY, { direction, overOthers: false });
              if (step === null) return;
              expect(step.done).toBe(true);
              if (step.done) bot = step.bot;
            }
          };
          await all('undo');
          expect((await loadBot(db, bot.id)).document).toEqual(first.document);
          expect(bot.document).toEqual(first.document);
          await all('redo');
          expect((await loadBot(db, bot.id)).document).toEqual(last);
          expect(bot.document).toEqual(last);
        }),
        { numRuns: 25 },
      );
    });
  });
});
