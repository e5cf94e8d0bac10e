import type { BotTexts } from '../say/engineTexts.js';
import type { Localised } from './localised.js';
import type { MarkedText } from './marking.js';

export type { Localised } from './localised.js';

/** Kinds of value that are known without an entry in the bot file. */
export const BUILT_IN_KINDS = [
  'number',
  'ordinal',
  'date',
  'time',
  'datetime',
  'duration',
  'money',
  'percent',
  'email',
  'phone',
  'url',
  'country',
  'person',
  'address',
] as const;

export type BuiltInKind = (typeof BUILT_IN_KINDS)[number];

/** Every kind an entity can have. A quantity is an amount with a unit of measure. */
export const ENTITY_KINDS = ['list', 'pattern', 'free', 'quantity', ...BUILT_IN_KINDS] as const;

export type EntityKind = (typeof ENTITY_KINDS)[number];

/**
 * What is never used again for another row of the same bot: drafts, selections and acts name rows by it. Files have
 * none; a row gets its own when it is made or read.
 */
export type RowId = string;

/** A message that teaches an intent, with the parts of it that carry values. */
export interface Utterance extends MarkedText {
  id: RowId;
}

/** One value of a list entity with the other ways it is said. */
export interface ListValue {
  id: RowId;
  value: string;
  synonyms: string[];
}

/** A kind of value that customers mention. */
export interface Entity {
  name: string;
  kind: EntityKind;
  /** List only: values are also found when misspelt. */
  misspellings?: boolean;
  /** List only. */
  values?: ListValue[];
  /** Pattern only: a regular expression that matches the whole value. */
  pattern?: string;
}

/** What a customer wants in one turn. */
export interface Intent {
  name: string;
  description?: string;
  /** How it is named to a customer: "change an order". Without it the name itself is put in words. */
  called?: Localised;
  /** Whether it stands in clarifications and help; without it all do but thanks, greetings and the like. */
  offered?: boolean;
  /** The form that is filled when this intent is accepted. */
  form?: string;
  /** Said when this intent is accepted, before its form begins. */
  reply?: Localised;
  /** The desk the conversation is handed to when this intent is accepted and it has no form. */
  desk?: string;
  /** The least confidence at which this intent is acted on, 0..1; without it that of the gate. */
  accept?: number;
  /** Example messages. */
  utterances: Utterance[];
}

/** A value that a form needs. */
export interface Slot {
  id: RowId;
  name: string;
  /** An entity of the bot or a built-in kind. */
  entity: string;
  required: boolean;
  /** Whether it may hold several values; without it a list and free words may, and other kinds hold one. */
  several?: boolean;
  /** How many tries fail at it before the conversation is handed over or given up; without it as many as of any. */
  tries?: number;
  /** Taken when the customer does not mind. */
  default?: string | number;
  /** JsonLogic over the form's values; the slot counts only while it holds. */
  when?: JsonLogicRule;
  /** What is said to ask for it: the first at the first try, the next at the next. */
  prompts: Localised;
}

export type JsonLogicRule = boolean | Record<string, unknown>;

/** A set of slots to fill, with what is said around them. */
export interface Form {
  name: string;
  slots: Slot[];
  /** The read-back that asks whether all is right. Without it the form completes when it is full. */
  confirm?: Localised;
  /** Said when the customer says no to the read-back. */
  decline?: Localised;
  /** What a no to the read-back does: the bot asks what to change (so without it), or the form is left. */
  onNo?: 'change' | 'leave';
  /** Said when the form is complete. */
  done?: Localised;
  /** The desk a completed form is handed to. */
  desk?: string;
}

/** A team of people that conversations can be handed to. */
export interface Desk {
  name: string;
  description?: string;
  /** Said when a conversation is handed to it. */
  handover?: Localised;
}

/** The two borders between accepted, asked about and not matched; each 0..1. */
export interface GateSettings {
  /** The least confidence that is acted on. */
  accept: number;
  /** The least confidence that is asked about. */
  ask: number;
  /** How far the best intent must lead the next to be acted on. */
  lead: number;
  /**
   * The least confidence at which a form is opened that is read back before anything is done: a mistake costs a
   * question there. Without it that of any other intent.
   */
  acceptForms?: number;
  /** How it asks where it is unsure; {@link DEFAULT_CLARIFY} where nobody said. */
  clarify?: ClarifySettings;
  /** What mistakes cost, by which levels are recommended; {@link DEFAULT_COSTS} where nobody said. */
  costs?: GateCosts;
}

/** How the bot asks where it is unsure what is meant. */
export interface ClarifySettings {
  /** How many intents are offered at most. */
  most: number;
  /** How often in a row it asks, before it says that it does not understand. */
  asks: number;
  /** A single likely intent is asked about, or taken with a word about it. */
  single: 'ask' | 'take';
  /** What "none of those" leads to: the words for what is not understood, or a desk at once. */
  neither: 'noMatch' | 'desk';
}

export const DEFAULT_CLARIFY: ClarifySettings = { most: 3, asks: 3, single: 'ask', neither: 'noMatch' };

/** How a bot asks where it is unsure. */
export const clarifyOf = ({ clarify }: GateSettings): ClarifySettings => clarify ?? DEFAULT_CLARIFY;

/**
 * Where help is sought when a message belongs to no intent: the customer puts it another way, the intents that come
 * nearest are offered, the bot says what it can do, a desk takes over, or the conversation ends.
 */
export const HELP_STEPS = ['reword', 'nearest', 'options', 'desk', 'end'] as const;

export type HelpStep = (typeof HELP_STEPS)[number];

/** What the business loses by a message that goes wrong, in any unit. */
export interface GateCosts {
  /** The bot acts on what the customer did not want. */
  wrongAct: number;
  /** The bot opens a form that the customer did not want, and that is read back before anything is done. */
  wrongForm: number;
  /** The bot asks. */
  question: number;
  /** A request that the bot could have taken is not taken. */
  missed: number;
  /** The bot acts on a message that is none of its business. */
  outsideAct: number;
}

/** A wrong act is worth eight questions; to be set by what a business says. */
export const DEFAULT_COSTS: GateCosts = { wrongAct: 8, wrongForm: 2, question: 1, missed: 3, outsideAct: 6 };

/** What happens when nothing was understood. */
export interface NoMatchSettings {
  /** Said at the first failed try, the second, and so on; the last serves for the rest. */
  prompts: Localised;
  /** How many tries fail before the conversation is handed over or given up. */
  tries: number;
  /** Where help is sought at the first failed try, the second, and so on; without it the customer is to put it otherwise. */
  order?: HelpStep[];
  /** How often in a row nothing is said before it gives up; without it as often as tries fail. */
  silences?: number;
  /** The desk it is then handed to; without one the bot says `giveUp`. */
  desk?: string;
  /** Said when no desk takes over. */
  giveUp: Localised;
}

/** A whole bot: everything that recognising and conversing depend on. */
export interface BotDocument {
  reedGate: 1;
  name: string;
  languages: string[];
  /** IANA name, e.g. `Europe/London`. */
  timeZone: string;
  /** ISO 3166 country, e.g. `GB`: decides the order of day and month and the reading of phone numbers. */
  region: string;
  greeting: Localised;
  entities: Entity[];
  intents: Intent[];
  forms: Form[];
  desks: Desk[];
  gate: GateSettings;
  noMatch: NoMatchSettings;
  /** Its own wordings of the sentences that the engine says. */
  texts: BotTexts;
}

/**
 * Levels of a new bot. At this accept level 19 in 20 accepted messages were read right in the tests of three bots, and
 * more than half of what they were made for was accepted.
 */
export const DEFAULT_GATE: GateSettings = { accept: 0.88, ask: 0.3, lead: 0.1 };

export const DEFAULT_NO_MATCH: NoMatchSettings = {
  prompts: [
    'Sorry, I did not understand that. Could you put it another way?',
    'I still did not follow. What would you like to do?',
  ],
  tries: 3,
  giveUp: 'I am sorry, I could not help with that.',
};

export const DEFAULT_GREETING = 'Hello, how can I help?';

/** A bot with nothing in it yet. */
export function emptyBot(name: string): BotDocument {
  return {
    reedGate: 1,
    name,
    languages: ['en'],
    timeZone: 'Europe/London',
    region: 'GB',
    greeting: DEFAULT_GREETING,
    entities: [],
    intents: [],
    forms: [],
    desks: [],
    gate: { ...DEFAULT_GATE },
    noMatch: { ...DEFAULT_NO_MATCH, prompts: [...(DEFAULT_NO_MATCH.prompts as string[])] },
    texts: {},
  };
}

/** Names of intents, entities, slots, forms and desks: letters, digits, `_` and `-`, beginning with a letter. */
export const NAME_PATTERN = /^[\p{L}_][\p{L}\p{N}_-]*$/u;

export function isBuiltInKind(name: string): name is BuiltInKind {
  return (BUILT_IN_KINDS as readonly string[]).includes(name);
}

/** The entity of that name: the bot's own, else the built-in kind itself, else `undefined`. */
export function findEntity(document: BotDocument, name: string): Entity | undefined {
  return (
    document.entities.find((entity) => entity.name === name) ?? (isBuiltInKind(name) ? { name, kind: name } : undefined)
  );
}

/** The kind of values that a slot of a form takes. */
export const kindOfSlot = (document: BotDocument, form: Form, name: string): EntityKind | undefined =>
  kindOf(
    document,
    form.slots.find((slot) => slot.name === name),
  );

/** The kind of values that a slot takes. */
export const kindOf = (document: BotDocument, slot: Slot | undefined): EntityKind | undefined =>
  slot && findEntity(document, slot.entity)?.kind;

export function findIntent(document: BotDocument, name: string): Intent | undefined {
  return document.intents.find((intent) => intent.name === name);
}

export function findForm(document: BotDocument, name: string | undefined): Form | undefined {
  return name === undefined ? undefined : document.forms.find((form) => form.name === name);
}

/** The form that an intent fills, if it has one. */
export function formOfIntent(document: BotDocument, intentName: string): Form | undefined {
  return findForm(document, findIntent(document, intentName)?.form);
}

/** The bot's own entities, and the built-in kinds that its slots use by name. */
export function entitiesInUse(document: BotDocument): Entity[] {
  const named = new Set(document.entities.map((entity) => entity.name));
  const builtIn = new Set<string>();
  for (const form of document.forms) {
    for (const slot of form.slots) if (!named.has(slot.entity)) builtIn.add(slot.entity);
  }
  return [...document.entities, ...[...builtIn].filter(isBuiltInKind).map((kind) => ({ name: kind, kind }))];
}
