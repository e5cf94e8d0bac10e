import { findEntity, formOfIntent, type BotDocument, type Intent, type Slot, type Utterance } from '../bot/document.js';
import { exampleAnswer } from '../bot/examples.js';
import type { Language } from '../language/language.js';
import { oneOf, type Random } from '../noise/noise.js';
import type { SlotValue } from '../recognise/value.js';
import { heldOf, type Named } from '../text/named.js';

/** What a customer wants for a slot. */
export interface Want {
  /** How it is said. */
  said: string;
  /** What the slot must hold; `undefined` where the words do not tell (a day is reckoned from today). */
  value?: SlotValue;
}

/** What a simulated customer has come for. */
export interface Goal {
  intent: string;
  form: string;
  /** How it begins. */
  opening: string;
  /** Other ways to say the same, for when it is not understood. */
  otherwise: string[];
  /** By slot. */
  wants: Named<Want>;
}

/** What utterances of the bot have marked as a slot. */
const markedAs = (document: BotDocument, slot: Slot): string[] =>
  document.intents.flatMap(({ utterances }) =>
    utterances.flatMap(({ text, marks }) =>
      marks
        .filter((mark) => mark.slot === slot.name || mark.slot === slot.entity)
        .map(({ start, end }) => text.slice(start, end)),
    ),
  );

/** Something that may be wanted for a slot. */
export function wantFor(document: BotDocument, slot: Slot, random: Random, language: Language): Want {
  const entity = findEntity(document, slot.entity);
  const kind = entity?.kind ?? 'free';
  if (kind === 'list') {
    const values = entity?.values ?? [];
    if (values.length === 0) return { said: exampleAnswer(entity, language) };
    const { value, synonyms } = oneOf(values, random);
    return { said: oneOf([value, ...synonyms], random), value };
  }
  const marked = kind === 'pattern' || kind === 'free' ? markedAs(document, slot) : [];
  if (marked.length > 0) return { said: oneOf(marked, random) };
  if (kind === 'pattern') return { said: exampleAnswer(entity, language) };
  const said = oneOf(language.customers.values[kind], random);
  const { units, readDigits } = language.numbers;
  const number = kind === 'number' ? (units.get(said) ?? readDigits(said)) : null;
  return { said, ...(number !== null && { value: number }) };
}

/** An utterance as this customer says it: what is marked in it is what is wanted. */
function asSaid({ text, marks }: Utterance, wants: Named<Want>): string {
  return [...marks]
    .sort((a, b) => b.start - a.start)
    .reduce((said, { slot, start, end }) => {
      const want = heldOf(wants, slot);
      return want ? said.slice(0, start) + want.said + said.slice(end) : said;
    }, text);
}

/** Ways that a customer tries before it gives up. */
const OTHER_WAYS = 2;

/** The intents that customers can come for: those that open a form and are taught with utterances. */
export const goalIntents = (document: BotDocument): Intent[] =>
  document.intents.filter(({ name, utterances }) => utterances.length > 0 && formOfIntent(document, name));

/** What one customer has come for. @param intent of {@link goalIntents} */
export function makeGoal(document: BotDocument, intent: Intent, random: Random, language: Language): Goal {
  const form = formOfIntent(document, intent.name)!;
  const wants = Object.fromEntries(
    form.slots.map((slot) => [slot.name, wantFor(document, slot, random, language)] as const),
  );
  const said = () => asSaid(oneOf(intent.utterances, random), wants);
  return {
    intent: intent.name,
    form: form.name,
    opening: said(),
    otherwise: Array.from({ length: OTHER_WAYS }, said),
    wants,
  };
}
