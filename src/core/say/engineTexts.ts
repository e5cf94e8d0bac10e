import type { Localised } from '../bot/localised.js';

/** Something that can be put into a text, with what it would say for an example of this bot. */
export interface Insert {
  text: string;
  hint: string;
  example: string;
}

/** A sentence that the bot says of its own accord; a bot may have its own wording for it. */
interface EngineText {
  /** When it is said, as a person reads it. */
  when: string;
  /** What may be put in, by name, and what it stands for. */
  arguments: Record<string, string>;
}

const text = (when: string, args: Record<string, string> = {}): EngineText => ({ when, arguments: args });

const CHOICES = { choices: 'what there is to choose from, as a list' };
const SLOT = { slot: 'the slot in words' };

/** Every sentence of the engine, in the order in which screens show them. */
export const ENGINE_TEXTS = {
  clarifyOne: text('One intent is likely, but not sure; a wording for each time it is asked', CHOICES),
  takenFor: text('The same, where it is taken without asking', CHOICES),
  clarify: text('Several intents are likely; a wording for each time it is asked', CHOICES),
  noted: text('The answer gives what either of them needs, before it is asked again', {
    values: 'what is kept',
  }),
  help: text('The customer asks what the bot can do', CHOICES),
  helpNothing: text('The same, where the bot offers nothing yet'),
  offerNext: text('The first of two wishes is done', {
    wish: 'the second wish, by its customers’ name',
  }),
  left: text('A form is left'),
  startOver: text('The customer wants to start again'),
  silence: text('The customer says nothing, a wording for each time'),
  noAnswer: text('An intent is accepted that has no reply, form or desk'),
  handover: text('A desk takes over that has no words of its own'),
  handedOver: text('The customer writes on after a handover; said once'),
  end: text('The customer wants nothing more'),
  askSlot: text('A slot is asked for that has no prompt', SLOT),
  needed: text('The customer would rather not say, or asks why', SLOT),
  notUnderstood: text('No value was found in an answer, before the prompt is said again; may be empty'),
  whichValue: text('Two values were given where one is wanted', { ...CHOICES, ...SLOT }),
  whichSlot: text('A value could be for either of two slots', {
    ...CHOICES,
    said: 'the words of the value',
  }),
  oneAtATime: text('Several things are ordered at once that do not pair off', { said: 'what is taken first' }),
  changed: text('A value was changed', {
    values: 'what it was changed to',
    slots: 'the slots in words',
  }),
  whatToChange: text('A “no” to a read-back that has no words for it'),
  noSuchDay: text('A day is named that no calendar has'),
  dayGone: text('A day or moment has gone by where one to come is wanted'),
  endsBefore: text('A stretch would end before it begins'),
  tooFew: text('An amount is nothing or less'),
  notWhole: text('Half a thing is asked for'),
  notKnown: text('Words are given that no value of the list has', { said: 'the words' }),
  notWritten: text('A code, a number or an address for messages is not as it has to be', {
    said: 'what was given',
    example: 'what one looks like',
  }),
} as const satisfies Record<string, EngineText>;

export type TextName = keyof typeof ENGINE_TEXTS;

export const TEXT_NAMES = Object.keys(ENGINE_TEXTS) as TextName[];

/** The bot's own wordings of sentences of the engine. */
export type BotTexts = Partial<Record<TextName, Localised>>;

/** What a sentence of the engine may put in. */
export function insertsForText(name: TextName): Insert[] {
  return Object.entries<string>(ENGINE_TEXTS[name].arguments).map(([key, hint]) => ({
    text: `{${key}}`,
    hint,
    example: '',
  }));
}
