import { countries } from 'i18n-iso-countries/langs/en.json';
import { changeValuesInRule, conditionFault, slotsIn } from '../say/condition.js';
import { readMessage, showFault } from '../say/message.js';
import { TEXT_NAMES } from '../say/texts.js';
import { closest } from '../text/distance.js';
import { compilePattern, PatternError } from '../text/pattern.js';
import {
  DEFAULT_GATE,
  DEFAULT_GREETING,
  DEFAULT_NO_MATCH,
  findEntity,
  findForm,
  isBuiltInKind,
  type BotDocument,
  type Entity,
  type Form,
  type Intent,
  type ListValue,
  type Localised,
} from './document.js';
import { allWordings } from './localised.js';
import { MarkingError, readMarking } from './marking.js';
import { shapeFaults, type Fault } from './schema.js';

/** What reading a bot file gives: the whole document, or every fault found. */
export type ReadResult = { ok: true; document: BotDocument } | { ok: false; faults: Fault[] };

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
    const read = readMessage(wording);
    return read.ok ? [] : [{ path, message: `“${shorten(wording)}”: ${showFault(wording, read.fault)}` }];
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

function entityFaults(entity: Entity, path: string): Fault[] {
  if (isBuiltInKind(entity.name) && entity.kind !== entity.name) {
    return [{ path: `${path}.name`, message: `"${entity.name}" is a built-in kind; choose another name` }];
  }
  if (entity.kind !== 'pattern') return [];
  if (entity.pattern === undefined || entity.pattern === '') {
    return [{ path: `${path}.pattern`, message: 'is missing: an entity of kind pattern needs one, such as AB-\\d{4}' }];
  }
  try {
    compilePattern(entity.pattern);
    return [];
  } catch (error) {
    if (!(error instanceof PatternError)) throw error;
    return [{ path: `${path}.pattern`, message: error.message }];
  }
}

function intentFaults(document: BotDocument, intent: Intent, path: string): Fault[] {
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
  const slots = form?.slots.map((slot) => slot.name) ?? [];
  intent.utterances.forEach((utterance, index) => {
    const at = `${path}.utterances[${index}]`;
    try {
      for (const { slot } of readMarking(utterance).marks) {
        if (slots.includes(slot) || findEntity(document, slot) || (intent.form !== undefined && !form)) continue;
        const known = [...slots, ...document.entities.map((entity) => entity.name)];
        faults.push({ path: at, message: `there is no slot or entity "${slot}"${quoteNear(slot, known)}` });
      }
    } catch (error) {
      if (!(error instanceof MarkingError)) throw error;
      faults.push({ path: at, message: error.message });
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

/** Faults between the parts of a document: names that repeat, references to nothing, texts that cannot be read. */
export function validateReferences(document: BotDocument): Fault[] {
  const faults = [
    ...repeated(
      document.entities.map((entity) => entity.name),
      'entities',
      'entity',
    ),
    ...repeated(
      document.intents.map((intent) => intent.name),
      'intents',
      'intent',
    ),
    ...repeated(
      document.forms.map((form) => form.name),
      'forms',
      'form',
    ),
    ...repeated(
      document.desks.map((desk) => desk.name),
      'desks',
      'desk',
    ),
    ...document.entities.flatMap((entity, index) => entityFaults(entity, `entities[${index}]`)),
    ...document.intents.flatMap((intent, index) => intentFaults(document, intent, `intents[${index}]`)),
    ...document.forms.flatMap((form, index) => formFaults(document, form, `forms[${index}]`)),
    ...deskFaults(document, document.noMatch.desk, 'noMatch.desk'),
    ...messageFaults(document.greeting, 'greeting'),
    ...messageFaults(document.noMatch.prompts, 'noMatch.prompts'),
    ...messageFaults(document.noMatch.giveUp, 'noMatch.giveUp'),
    ...document.desks.flatMap((desk, index) => messageFaults(desk.handover, `desks[${index}].handover`)),
    ...TEXT_NAMES.flatMap((name) => messageFaults(document.texts[name], `texts.${name}`)),
    ...placeFaults(document),
  ];
  if (document.gate.ask > document.gate.accept) {
    faults.push({ path: 'gate.ask', message: 'must not be higher than the accept level' });
  }
  return faults;
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

type Draft<T> = { [K in keyof T]?: unknown };

function defined<T extends object>(value: T): T {
  return Object.fromEntries(Object.entries(value).filter(([, part]) => part !== undefined)) as T;
}

function normalEntity(entity: Entity): Entity {
  const values = entity.values as (ListValue | string)[] | undefined;
  return defined({
    ...entity,
    values:
      entity.kind === 'list'
        ? (values ?? []).map((value) =>
            typeof value === 'string'
              ? { value, synonyms: [] }
              : { value: value.value, synonyms: value.synonyms ?? [] },
          )
        : undefined,
  } as Entity);
}

/** Fills in what a file may leave out, so that the same bot always has the same document. */
function normalise(draft: Draft<BotDocument>): BotDocument {
  const given = draft as Partial<BotDocument>;
  return {
    reedGate: 1,
    name: given.name!,
    languages: given.languages && given.languages.length > 0 ? given.languages : ['en'],
    timeZone: given.timeZone ?? 'Europe/London',
    region: given.region ?? (given.timeZone?.startsWith('America/') ? 'US' : 'GB'),
    greeting: given.greeting ?? DEFAULT_GREETING,
    entities: (given.entities ?? []).map(normalEntity),
    intents: (given.intents ?? []).map((intent) => defined({ ...intent, utterances: intent.utterances ?? [] })),
    forms: (given.forms ?? []).map((form) =>
      defined({
        ...form,
        slots: (form.slots ?? []).map((slot) =>
          defined({ ...slot, required: slot.required ?? false, prompts: slot.prompts ?? [] }),
        ),
      }),
    ),
    desks: (given.desks ?? []).map(defined),
    gate: { ...DEFAULT_GATE, ...given.gate },
    noMatch: { ...DEFAULT_NO_MATCH, ...given.noMatch },
    texts: defined(given.texts ?? {}),
  };
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

/** Reads a parsed bot file. Every fault is listed with its path; nothing is taken from a file that has one. */
export function readBot(value: unknown): ReadResult {
  const shape = shapeFaults(value);
  if (shape.length > 0) return { ok: false, faults: shape };
  const document = normalise(value as Draft<BotDocument>);
  const faults = validateReferences(document);
  return faults.length > 0 ? { ok: false, faults } : { ok: true, document: withMainForms(document) };
}
