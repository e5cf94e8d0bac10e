import type { Localised } from '../bot/localised.js';

/** A sentence that the bot says of its own accord; a bot may have its own wording for it. */
export interface EngineText {
  /** When it is said, as a person reads it. */
  when: string;
  /** The wording where the bot has none of its own, by language. A list is for the first try, the next, and so on. */
  default: Record<'en', string | string[]>;
  /** What may be put in, by name, and what it stands for. */
  arguments: Record<string, string>;
}

const text = (when: string, wording: string | string[], args: Record<string, string> = {}): EngineText => ({
  when,
  default: { en: wording },
  arguments: args,
});

const CHOICES = { choices: 'what there is to choose from, as a list' };
const SLOT = { slot: 'the slot in words' };

/** Every sentence of the engine, in the order in which screens show them. */
export const ENGINE_TEXTS = {
  clarifyOne: text('One intent is likely, but not sure', 'Do you mean {choices}?', CHOICES),
  clarify: text('Two or three intents are likely', 'Which do you mean: {choices}?', CHOICES),
  help: text('The customer asks what the bot can do', 'I can help with these: {choices}.', CHOICES),
  helpNothing: text('The same, where the bot offers nothing yet', 'I cannot do anything yet.'),
  offerNext: text('The first of two wishes is done', 'You also asked for this: {wish}. Shall I go on with it?', {
    wish: 'the second wish, by its customers’ name',
  }),
  left: text('A form is left', 'All right, I have left that.'),
  startOver: text('The customer wants to start again', 'Let us start again. What would you like to do?'),
  silence: text('The customer says nothing, a wording for each time', [
    'Are you still there?',
    'Take your time. I am still here.',
  ]),
  noAnswer: text('An intent is accepted that has no reply, form or desk', 'I have no answer to that yet.'),
  handover: text('A desk takes over that has no words of its own', 'I will pass you on to a colleague.'),
  handedOver: text(
    'The customer writes on after a handover; said once',
    'You are with a colleague now, who will answer you here.',
  ),
  end: text('The customer wants nothing more', 'Thank you. Goodbye.'),
  askSlot: text('A slot is asked for that has no prompt', 'What is the {slot}?', SLOT),
  needed: text(
    'The customer would rather not say, or asks why',
    'I need that to go on. You can also say "cancel".',
    SLOT,
  ),
  notUnderstood: text('No value was found in an answer, before the prompt is said again; may be empty', ''),
  whichValue: text('Two values were given where one is wanted', 'Which is it: {choices}?', { ...CHOICES, ...SLOT }),
  whichSlot: text('A value could be for either of two slots', 'Which do you mean by “{said}”: {choices}?', {
    ...CHOICES,
    said: 'the words of the value',
  }),
  oneAtATime: text(
    'Several things are ordered at once that do not pair off',
    'I can take one thing at a time. First {said}; tell me about the rest afterwards.',
    { said: 'what is taken first' },
  ),
  changed: text('A value was changed', 'All right, {values} it is.', {
    values: 'what it was changed to',
    slots: 'the slots in words',
  }),
  whatToChange: text('A “no” to a read-back that has no words for it', 'What would you like to change?'),
  noSuchDay: text('A day is named that no calendar has', 'There is no such day.'),
  dayGone: text('A day or moment has gone by where one to come is wanted', 'That day has gone by.'),
  endsBefore: text('A stretch would end before it begins', 'It would end before it begins.'),
  tooFew: text('An amount is nothing or less', 'It has to be at least one.'),
  notWhole: text('Half a thing is asked for', 'It has to be a whole number.'),
  notKnown: text('Words are given that no value of the list has', 'I do not know “{said}”.', { said: 'the words' }),
} as const satisfies Record<string, EngineText>;

export type TextName = keyof typeof ENGINE_TEXTS;

export const TEXT_NAMES = Object.keys(ENGINE_TEXTS) as TextName[];

/** The bot's own wordings of sentences of the engine. */
export type BotTexts = Partial<Record<TextName, Localised>>;

/** The bot's wording of a sentence, else the default. An empty text of the bot's own says nothing. */
export function textOf({ texts }: { texts: BotTexts }, name: TextName): Localised {
  return texts[name] ?? ENGINE_TEXTS[name].default;
}
