import { countries } from 'i18n-iso-countries/langs/en.json';
import { changeValuesInRule, conditionFault, slotsIn } from '../say/condition.js';
import { readMessage, showFault } from '../say/message.js';
import { TEXT_NAMES } from '../say/engineTexts.js';
import { closest } from '../text/distance.js';
import { compilePattern, HEAVIEST_PATTERN, HEAVIEST_PATTERNS, PatternError, weightOf } from '../text/pattern.js';
import {
  findEntity,
  findForm,
  isBuiltInKind,
  type BotDocument,
  type Desk,
  type Entity,
  type Form,
  type Intent,
  type Localised,
  type Utterance,
} from './document.js';
import { allWordings } from './localised.js';
import type { Fault } from '../shape/fault.js';

const quoteNear = (name: string, known: readonly string[]): string => {
  const near = closest(name, known);
  return near ? `; did you mean "${near}"?` : '';
};

const LONGEST_QUOTED = 80;
const shorten = (words: string): string =>
  words.length > LONGEST_QUOTED ? `${words.slice(0, LONGEST_QUOTED)} …` : words;

function repeated(names: readonly string[], path: string, what: string): Fault[] {
  return names.flatMap((name, index) =>
    names.indexOf(name) < index
      ? [{ path: `${path}[${index}].name`, message: `there is another ${what} "${name}"; names must differ` }]
      : [],
  );
}

function messageFaults(text: Localised | undefined, path: string): Fault[] {
  return allWordings(text).flatMap((wording) => {
    const result = readMessage(wording);
    return result.ok ? [] : [{ path, message: `“${shorten(wording)}”: ${showFault(wording, result.fault)}` }];
  });
}

function conditionFaults(rule: unknown, path: string, slots: readonly string[]): Fault[] {
  if (rule === undefined || rule === null) return [];
  const fault = conditionFault(rule);
  if (fault !== null) return [{ path, message: `the condition cannot be used: ${fault}` }];
  return slotsIn(rule)
    .filter((name) => name !== '' && !slots.includes(name))
    .map((name) => ({ path, message: `there is no slot "${name}" in this form${quoteNear(name, slots)}` }));
}

const tooHeavy = (pattern: string): string =>
  `the pattern "${shorten(pattern)}" is too heavy: each message would take long to read. Repeat fewer times, such as {1,20} for {1,1000}, or make two entities of it`;

/** The faults of all patterns together, which every message is read with. */
function patternsFaults(entities: readonly Entity[]): Fault[] {
  const weights = entities.map(({ kind, pattern }) => (kind === 'pattern' && pattern ? weighed(pattern) : 0));
  // What cannot be read is told of the entity itself.
  const weight = weights.reduce<number>((sum, one) => sum + (typeof one === 'number' ? one : 0), 0);
  if (weight <= HEAVIEST_PATTERNS) return [];
  const message =
    'have patterns that are too heavy together: each message would take long to read. Use fewer, or simpler ones';
  return [{ path: 'entities', message }];
}

/** The weight of a pattern, or why it cannot be read. */
function weighed(pattern: string): number | string {
  try {
    return weightOf(compilePattern(pattern));
  } catch (error) {
    if (!(error instanceof PatternError)) throw error;
    return error.message;
  }
}

function entityFaults(entity: Entity, path: string): Fault[] {
  if (isBuiltInKind(entity.name) && entity.kind !== entity.name) {
    return [{ path: `${path}.name`, message: `"${entity.name}" is a built-in kind; choose another name` }];
  }
  if (entity.kind !== 'pattern') return [];
  if (entity.pattern === undefined || entity.pattern === '') {
    return [{ path: `${path}.pattern`, message: 'is missing: an entity of kind pattern needs one, such as AB-\\d{4}' }];
  }
  const weight = weighed(entity.pattern);
  if (typeof weight === 'number' && weight <= HEAVIEST_PATTERN) return [];
  return [{ path: `${path}.pattern`, message: typeof weight === 'string' ? weight : tooHeavy(entity.pattern) }];
}

/** @param before the utterances of the intent that are known to be right; only others are looked at */
function intentFaults(document: BotDocument, intent: Intent, path: string, before: readonly Utterance[] = []): Fault[] {
  const faults: Fault[] = [];
  const form = findForm(document, intent.form);
  if (intent.form !== undefined && !form) {
    const near = quoteNear(
      intent.form,
      document.forms.map((other) => other.name),
    );
    faults.push({ path: `${path}.form`, message: `there is no form "${intent.form}"${near}` });
  }
  faults.push(
    ...deskFaults(document, intent.desk, `${path}.desk`),
    ...messageFaults(intent.reply, `${path}.reply`),
    ...messageFaults(intent.called, `${path}.called`),
  );
  // Where the form is not there, its slots are not known, and that was said.
  if (intent.form !== undefined && !form) return faults;
  const right = new Set(before);
  const slots = form?.slots.map((slot) => slot.name) ?? [];
  const known = new Set([...slots, ...document.entities.map((entity) => entity.name)]);
  intent.utterances.forEach((utterance, index) => {
    if (right.has(utterance)) return;
    for (const { slot } of utterance.marks) {
      if (known.has(slot) || isBuiltInKind(slot)) continue;
      const message = `there is no slot or entity "${slot}"${quoteNear(slot, [...known])}`;
      faults.push({ path: `${path}.utterances[${index}]`, message });
    }
  });
  return faults;
}

function deskFaults(document: BotDocument, name: string | undefined, path: string): Fault[] {
  if (name === undefined || document.desks.some((desk) => desk.name === name)) return [];
  return [
    {
      path,
      message: `there is no desk "${name}"${quoteNear(
        name,
        document.desks.map((desk) => desk.name),
      )}`,
    },
  ];
}

function formFaults(document: BotDocument, form: Form, path: string): Fault[] {
  const slots = form.slots.map((slot) => slot.name);
  const faults = repeated(slots, `${path}.slots`, 'slot');
  form.slots.forEach((slot, index) => {
    const at = `${path}.slots[${index}]`;
    if (!findEntity(document, slot.entity)) {
      const near = quoteNear(
        slot.entity,
        document.entities.map((entity) => entity.name),
      );
      faults.push({ path: `${at}.entity`, message: `there is no entity "${slot.entity}"${near}` });
    }
    faults.push(...conditionFaults(slot.when, `${at}.when`, slots), ...messageFaults(slot.prompts, `${at}.prompts`));
  });
  for (const key of ['confirm', 'decline', 'done'] as const) faults.push(...messageFaults(form[key], `${path}.${key}`));
  return [...faults, ...deskFaults(document, form.desk, `${path}.desk`)];
}

const namesOf = (parts: readonly { name: string }[]): string[] => parts.map(({ name }) => name);

function repeatedFaults({ entities, intents, forms, desks }: BotDocument): Fault[] {
  return [
    ...repeated(namesOf(entities), 'entities', 'entity'),
    ...repeated(namesOf(intents), 'intents', 'intent'),
    ...repeated(namesOf(forms), 'forms', 'form'),
    ...repeated(namesOf(desks), 'desks', 'desk'),
  ];
}

const handoverFaults = ({ handover }: Desk, path: string): Fault[] => messageFaults(handover, `${path}.handover`);

/** Faults of what is the bot's as a whole. */
function ownFaults(document: BotDocument): Fault[] {
  const { noMatch, gate } = document;
  const faults = [
    ...deskFaults(document, noMatch.desk, 'noMatch.desk'),
    ...messageFaults(document.greeting, 'greeting'),
    ...messageFaults(noMatch.prompts, 'noMatch.prompts'),
    ...messageFaults(noMatch.giveUp, 'noMatch.giveUp'),
    ...TEXT_NAMES.flatMap((name) => messageFaults(document.texts[name], `texts.${name}`)),
    ...placeFaults(document),
  ];
  if (gate.ask > gate.accept) faults.push({ path: 'gate.ask', message: 'must not be higher than the accept level' });
  return faults;
}

/** Faults between the parts of a document: names that repeat, references to nothing, texts that cannot be read. */
export function validateReferences(document: BotDocument): Fault[] {
  return [
    ...repeatedFaults(document),
    ...document.entities.flatMap((entity, index) => entityFaults(entity, `entities[${index}]`)),
    ...patternsFaults(document.entities),
    ...document.intents.flatMap((intent, index) => intentFaults(document, intent, `intents[${index}]`)),
    ...document.forms.flatMap((form, index) => formFaults(document, form, `forms[${index}]`)),
    ...document.desks.flatMap((desk, index) => handoverFaults(desk, `desks[${index}]`)),
    ...ownFaults(document),
  ];
}

/** What parts of a document can refer to. */
const referable = ({ entities, forms, desks }: BotDocument): string =>
  JSON.stringify([
    entities.map(({ name, kind }) => [name, kind]),
    forms.map(({ name, slots }) => [name, namesOf(slots)]),
    namesOf(desks),
  ]);

/** The faults of the parts that an act touched: what it left the same objects is not looked at again. */
function touchedFaults(before: BotDocument, after: BotDocument): Fault[] {
  const known = new Set<unknown>([
    before.entities,
    ...before.entities,
    ...before.intents,
    ...before.forms,
    ...before.desks,
  ]);
  const utterancesOf = new Map(before.intents.map(({ name, form, utterances }) => [`${name}\n${form}`, utterances]));
  const unlessKnown = <T>(part: T, faults: () => Fault[]): Fault[] => (known.has(part) ? [] : faults());
  return [
    ...repeatedFaults(after),
    ...after.entities.flatMap((entity, index) => unlessKnown(entity, () => entityFaults(entity, `entities[${index}]`))),
    ...unlessKnown(after.entities, () => patternsFaults(after.entities)),
    ...after.intents.flatMap((intent, index) =>
      unlessKnown(intent, () => {
        const right = utterancesOf.get(`${intent.name}\n${intent.form}`);
        return intentFaults(after, intent, `intents[${index}]`, right);
      }),
    ),
    ...after.forms.flatMap((form, index) => unlessKnown(form, () => formFaults(after, form, `forms[${index}]`))),
    ...after.desks.flatMap((desk, index) => unlessKnown(desk, () => handoverFaults(desk, `desks[${index}]`))),
    ...ownFaults(after),
  ];
}

/** The faults that an act would bring: those of what it touched that were not there before. */
export function newFaults(before: BotDocument, after: BotDocument): Fault[] {
  const faults = referable(before) === referable(after) ? touchedFaults(before, after) : validateReferences(after);
  if (faults.length === 0) return [];
  const known = new Set(validateReferences(before).map((fault) => fault.path + fault.message));
  return faults.filter((fault) => !known.has(fault.path + fault.message));
}

/** Where and in which languages a bot speaks. */
function placeFaults(document: BotDocument): Fault[] {
  const faults: Fault[] = [];
  if (document.name.trim() === '') faults.push({ path: 'name', message: 'must not be empty: give the bot a name' });
  if (!isTimeZone(document.timeZone)) {
    faults.push({
      path: 'timeZone',
      message: `"${document.timeZone}" is no time zone; write one such as Europe/London`,
    });
  }
  if (!Object.hasOwn(countries, document.region)) {
    faults.push({
      path: 'region',
      message: `"${document.region}" is no country; write its code of two capital letters, such as GB`,
    });
  }
  document.languages.forEach((language, index) => {
    if (isLanguage(language)) return;
    faults.push({
      path: `languages[${index}]`,
      message: `"${language}" is no language; write its code, such as en or es`,
    });
  });
  return faults;
}

const languageNames = new Intl.DisplayNames(['en'], { type: 'language', fallback: 'none' });
/** Codes that anybody may give a language of their own (ISO 639-2). */
const PRIVATE_USE = /^q[a-t][a-z]$/;

function isLanguage(tag: string): boolean {
  try {
    const [primary] = tag.toLowerCase().split('-');
    const known = languageNames.of(tag) !== undefined && new Intl.Locale(tag).language === primary;
    return known || PRIVATE_USE.test(tag);
  } catch {
    // No well-formed code.
    return false;
  }
}

function isTimeZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

/** The document with conditions that compare a slot with a synonym comparing it with the value itself. */
export function withMainForms(document: BotDocument): BotDocument {
  const forms = document.forms.map((form) => {
    const entityOf = new Map(form.slots.map((slot) => [slot.name, findEntity(document, slot.entity)]));
    const mainForm = (slot: string, written: string): string => {
      const values = entityOf.get(slot)?.values ?? [];
      if (values.some(({ value }) => value === written)) return written;
      const same = (word: string) => word.trim().toLowerCase() === written.trim().toLowerCase();
      return values.find(({ value, synonyms }) => [value, ...synonyms].some(same))?.value ?? written;
    };
    const slots = form.slots.map((slot) => {
      if (typeof slot.when !== 'object' || conditionFault(slot.when) !== null) return slot;
      const when = changeValuesInRule(slot.when, mainForm);
      return JSON.stringify(when) === JSON.stringify(slot.when) ? slot : { ...slot, when };
    });
    return slots.every((slot, index) => slot === form.slots[index]) ? form : { ...form, slots };
  });
  return forms.every((form, index) => form === document.forms[index]) ? document : { ...document, forms };
}
