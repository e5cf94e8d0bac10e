import { findEntity, findForm, formOfIntent, kindOf, type Form, type Slot } from '../bot/document.js';
import { allWordings } from '../bot/localised.js';
import { patternFinder } from '../recognise/finders/pattern.js';
import { sameValue, type SlotValue, type Values } from '../recognise/value.js';
import { foldPhrase } from '../text/foldPhrase.js';
import { tokenise } from '../text/tokens.js';
import { type OfferedIntent } from './state.js';
import { sayText, type Turn } from './turn.js';
import type { Stretches } from './wishes.js';
import { entriesOf, heldBy, heldOf } from '../text/named.js';

/** Codes are what they are on every day. */
const ANY_DAY = '';

const isCode = (turn: Turn, slot: Slot): boolean => kindOf(turn.document, slot) === 'pattern';

/** The code of an entity among what a form holds. */
function codeIn(turn: Turn, form: Form | undefined, values: OfferedIntent['values'], entity: string) {
  const slot = form?.slots.find((own) => own.entity === entity && heldOf(values, own.name) !== undefined);
  return slot && isCode(turn, slot) ? heldOf(values, slot.name) : undefined;
}

/** The code of an entity that the bot gave when the last form was done: "Your order number is LM-40001". */
function codeGiven(turn: Turn, form: Form | undefined, name: string): SlotValue | undefined {
  const { document, language, state } = turn;
  const entity = findEntity(document, name);
  // What was left undone has no number, and is not remembered.
  const held = entriesOf(state.last?.values ?? {});
  const isDone =
    held.length > 0 &&
    held.every(([slot, value]) => state.remembered.some((one) => one.slot === slot && sameValue(one.value, value)));
  if (!entity || state.open || state.lastReference === null || !isDone) return undefined;
  const find = patternFinder.prepare(entity, { language, region: document.region, vocabulary: new Set() });
  return allWordings(form?.done).flatMap((done) => find(tokenise(sayText(turn, done, state).text), ANY_DAY))[0]?.value;
}

/** What is known of the codes that a form takes, by slot. */
function codesOf(turn: Turn, form: Form, known: (entity: string) => SlotValue | undefined): Values {
  const codes = form.slots.filter((slot) => isCode(turn, slot));
  return heldBy(
    codes.flatMap(({ name, entity }): [string, SlotValue][] => {
      const code = known(entity);
      return code === undefined ? [] : [[name, code]];
    }),
  );
}

/**
 * The codes that a form takes and that the conversation has just been about: "where is LM-20419" – "cancel it".
 * @param within the words that ask for it; the whole message where it is left out
 */
export function codesPointedAt(turn: Turn, form: Form, within?: Stretches): Values {
  const { language, state, text } = turn;
  const words = within ? within.map(({ start, end }) => text.slice(start, end)).join(' ') : text;
  if (!language.clauses.pointsBack(foldPhrase(words).replace('?', ''))) return {};
  const last = findForm(turn.document, state.last?.form);
  return codesOf(
    turn,
    form,
    (entity) => codeIn(turn, last, state.last?.values ?? {}, entity) ?? codeGiven(turn, last, entity),
  );
}

/** The codes that the options of an open question hold and that a form takes too: all are about the same thing. */
export function codesOffered(turn: Turn, form: Form): Values {
  const options = turn.state.choosing ?? [];
  return codesOf(turn, form, (entity) =>
    options
      .map(({ intent, values }) => codeIn(turn, formOfIntent(turn.document, intent), values, entity))
      .find((value) => value !== undefined),
  );
}
