import { findForm, kindOf, type Form } from '../bot/document.js';
import type { Language } from '../language/language.js';
import type { StretchWords } from '../language/talk.js';
import { sameValue, type SlotValue, type Values } from '../recognise/value.js';
import { contentStems, dayNamed } from './fits.js';
import { namedSlots } from './named.js';
import type { OpenForm } from './state.js';
import { endsOfForm, nearHeld } from './stretch.js';
import { tellAbout } from './tell.js';
import { listWords, sayOwn, slotWords, takeAndAdvance, valueWords, type Reply, type Turn } from './turn.js';
import { readingsFor, type Stretches } from './wishes.js';
import { entriesOf, heldOf } from '../text/named.js';

/** A slot that a value could be for, with what it would be there. */
export interface SlotFit {
  slot: string;
  value: SlotValue;
}

/** What a slot is called to the customer: by its kind where its name is a little word ("at"). */
function calledFor({ document, language: { stretches } }: Turn, open: OpenForm, name: string): string {
  const kind = kindOf(
    document,
    findForm(document, open.form)?.slots.find((slot) => slot.name === name),
  );
  const called = kind === 'time' || kind === 'date' ? stretches.called[kind] : null;
  return called !== null && stretches.isLittleName(name) ? called : slotWords(name);
}

/** Asks which of several slots a value is for. */
export function askWhichSlot(turn: Turn, open: OpenForm, said: string, options: SlotFit[]): Reply {
  const choices = listWords(
    turn,
    options.map(({ slot, value }) =>
      turn.language.stretches.choice(calledFor(turn, open, slot), valueWords(turn, value)),
    ),
    'disjunction',
  );
  return {
    state: { ...turn.state, open: { ...open, fits: { said, options } } },
    says: sayOwn(turn, 'whichSlot', { said, choices }),
    acts: [],
    why: `${said} could be for ${options.map(({ slot }) => slot).join(' or ')}`,
  };
}

/** Whether some words have a word of a slot's name in them, in whatever form: "leaving" is of "leave". */
export function sharesWord(slot: string, words: string, language: Language): boolean {
  const own = new Set(contentStems(slotWords(slot), language));
  return contentStems(words, language).some((stem) => own.has(stem));
}

/** The end of a stretch that the words before a day tell; none where they tell neither. */
function endTold(before: string, [first, last]: [string, string], words: StretchWords): string[] {
  if (words.leadsToFirst(before)) return [first];
  return words.leadsToLast(before) ? [last] : [];
}

/** What one new day changes where a form holds both ends of a stretch: the end that the words tell, else either. */
function endsFor(
  turn: Turn,
  { form, open }: { form: Form; open: OpenForm },
  given: Values,
  within: Stretches,
): { said: string; options: SlotFit[] } | null {
  const { stretches } = turn.language;
  const ends = endsOfForm(turn.document, form)?.map(({ name }) => name);
  if (!ends || turn.now === null || ends.some((name) => heldOf(open.values, name) === undefined)) return null;
  const changed = ends.filter(
    (name) => heldOf(given, name) !== undefined && !sameValue(heldOf(given, name), heldOf(open.values, name)),
  );
  const reading = readingsFor(turn, open.intent, open.asked, within).find(({ slot }) => slot === changed[0]);
  if (changed.length !== 1 || !reading || typeof reading.value !== 'string') return null;
  const named = namedSlots(turn, form, open).map(({ name }) => name);
  const before = turn.text.slice(0, reading.start);
  const [first, last] = ends as [string, string];
  const byName = ends.filter((name) => named.includes(name) || sharesWord(name, before, turn.language));
  const told = byName.length === 1 ? byName : endTold(before, [first, last], stretches);
  const alone = stretches.dayAlone.exec(reading.text);
  const options = (told.length > 0 ? told : ends).map((slot) => ({
    slot,
    value: alone
      ? (dayNamed(Number(alone[1]), turn.now!, heldOf(open.values, slot)) ?? reading.value)
      : nearHeld(reading, heldOf(open.values, slot), { today: turn.now, language: turn.language }).value,
  }));
  return { said: reading.text, options };
}

/**
 * Takes a new day where a form holds both ends of a stretch: for the end that the words tell, or that is the only one
 * it can be; else asks which. `null` where a message gives no such day.
 * @param given all that the message gives
 */
export function changeEnd(
  turn: Turn,
  { form, open }: { form: Form; open: OpenForm },
  given: Values,
  within: Stretches,
): Reply | null {
  const change = endsFor(turn, { form, open }, given, within);
  if (!change) return null;
  const { said, options } = change;
  const [first, last] = endsOfForm(turn.document, form)!.map(({ name }) => name) as [string, string];
  const possible = options.filter(({ slot, value }) => {
    const [from, to] = [first, last].map((name) => (name === slot ? value : heldOf(open.values, name)));
    return typeof from === 'string' && typeof to === 'string' && from <= to;
  });
  const state = { ...turn.state, tries: 0 };
  const [fit] = possible;
  if (!fit) {
    const wrong = [{ slot: options[0]!.slot, text: 'endsBefore' as const }];
    const told = tellAbout(turn, state, { given: {}, wrong, between: null, firstOf: null })!;
    return { ...told, why: `${said} would end the stretch before it begins` };
  }
  if (possible.length > 1) return askWhichSlot(turn, open, said, possible);
  const others = Object.fromEntries(entriesOf(given).filter(([slot]) => slot !== first && slot !== last));
  return {
    ...takeAndAdvance(turn, state, { ...others, [fit.slot]: fit.value }),
    why: `the customer corrects ${fit.slot}`,
  };
}
