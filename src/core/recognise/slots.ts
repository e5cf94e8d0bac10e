import {
  findEntity,
  findIntent,
  formOfIntent,
  type BotDocument,
  type EntityKind,
  type Form,
  type Slot,
} from '../bot/document.js';
import type { Vectors } from '../encode/encoder.js';
import { languageOf } from '../language/index.js';
import { tidy, tokensWithin, type Token, type TokenisedText } from '../text/tokens.js';
import type { Candidate } from './finders/finder.js';
import { settleOverlaps } from './finders/index.js';
import type { Tag, Tagging } from './tagger/tagger.js';
import { changeTold, rolesOf, type Role } from './roles.js';
import { showValue, type Value } from './value.js';

/** A value read for a slot. Offsets are UTF-16 code units of the original text. */
export interface SlotReading {
  slot: string;
  entity: string;
  start: number;
  end: number;
  text: string;
  value: Value;
  /** Why it was taken, in a sentence. */
  why: string;
}

/** A value that was found and not taken, with the reason in a sentence. */
export interface PassedOver {
  entity: string;
  start: number;
  end: number;
  text: string;
  why: string;
}

/** What was taken from a message, and what was not. */
export interface SlotsRead {
  slots: SlotReading[];
  passedOver: PassedOver[];
}

const RULED_OUT =
  /(?:^|[^\p{L}])(?:not|without|instead\s+of|rather\s+than|anything\s+but|isn['’]?t|no|(?:don['’]?t|do\s+not|can['’]?t|cannot|won['’]?t)\s+(?:want|do|make|need|like|manage|have|come)(?:\s+(?:it|them|that|this|one))?)\s+(?:on\s+|at\s+|for\s+|by\s+|in\s+)?(?:an?\s+|the\s+|any\s+)?$/iu;
/** What after a value rules it out: "Monday is no good". */
const NO_GOOD =
  /^\s+(?:(?:is|was|would\s+be)\s+(?:no\s+good|not\s+(?:good|possible|right)|out|wrong|too\s+\p{L}+)|isn['’]?t\s+(?:any\s+)?(?:good|possible|right)|(?:doesn['’]?t|does\s+not|won['’]?t|will\s+not)\s+(?:work|suit|do))(?=\P{L}|$)/iu;
const CORRECTS = /^\s*(?:no|nope|nah)[\s,]+$/iu;
/** Values of amounts, days and times. */
const FIGURES = /^\d/;
/** How far back the words that rule a value out are looked for, in UTF-16 code units. */
const RULING_WORDS = 60;
const CORRECTED =
  /(?:^|[^\p{L}])(?:no|sorry|wait|actually|i\s+meant?|make\s+(?:that|it)|or\s+rather|scratch\s+that|correction|oops|instead)(?:[^\p{L}]|$)/iu;
/** "Friday no Saturday": right after a value of the same slot, "no" takes that one back. */
const NO_BETWEEN = /^[\s,.;–-]*no[\s,]+$/iu;

/** Likelihood from which words that no finder knows are taken for a slot. */
const LIKELY = 0.7;
/** How much it counts that a slot was asked for, or that it has a value already, beside the likelihood of the words. */
const [ASKED, TAKEN] = [0.25, 0.5];
/** How much a word counts that tells whether a value is what was or what is to be. */
const ROLE_TOLD = 0.5;

const quote = (text: string): string => `“${text}”`;

function passOver({ entity, start, end }: Candidate | SlotReading, text: string, why: string): PassedOver {
  return { entity, start, end, text: text.slice(start, end), why };
}

/** The reading of the same slot that stands next before each, by reading. @param readings in text order */
function previousOfSlot(readings: readonly SlotReading[]): Map<SlotReading, SlotReading> {
  const previous = new Map<SlotReading, SlotReading>();
  const last = new Map<string, SlotReading>();
  for (const reading of readings) {
    const before = last.get(reading.slot);
    if (before) previous.set(reading, before);
    last.set(reading.slot, reading);
  }
  return previous;
}

/**
 * Leaves out values that the customer took back ("two, sorry, three") or ruled out ("not gloss").
 * @param readings in text order
 */
function withoutRetracted(
  text: string,
  readings: readonly SlotReading[],
  roles: ReadonlyMap<string, Role> = new Map(),
): SlotsRead {
  const passedOver: PassedOver[] = [];
  const previous = previousOfSlot(readings);
  const standing = readings.filter((reading) => {
    const last = previous.get(reading);
    const correction = last !== undefined && NO_BETWEEN.test(text.slice(last.end, reading.start));
    const before = text.slice(Math.max(0, reading.start - RULING_WORDS), reading.start);
    const after = text.slice(reading.end, reading.end + RULING_WORDS);
    // "No 4" and "no, Friday" correct; "no gloss" does not.
    const corrects =
      correction || (CORRECTS.test(text.slice(0, reading.start)) && FIGURES.test(showValue(reading.value)));
    // "Not Friday, Monday": of a change, what is ruled out is what was.
    const ruledOut =
      !corrects && roles.get(reading.slot) !== 'former' && (RULED_OUT.test(before) || NO_GOOD.test(after));
    if (ruledOut) passedOver.push(passOver(reading, text, `the words beside ${quote(reading.text)} rule it out`));
    return !ruledOut;
  });
  const takenBack = new Set<SlotReading>();
  for (const [reading, last] of previousOfSlot(standing)) {
    if (!CORRECTED.test(text.slice(last.end, reading.start))) continue;
    takenBack.add(last);
    passedOver.push(passOver(last, text, `${quote(last.text)} is taken back for ${quote(reading.text)}`));
  }
  return { slots: standing.filter((reading) => !takenBack.has(reading)), passedOver };
}

/**
 * Where two slots read the very same words, the asked one keeps them, then a time ("at 12" is no amount), else the one
 * that stands first in the form.
 */
function onePerWords(
  form: Form,
  readings: readonly SlotReading[],
  { asked, isTime }: { asked: string | null; isTime: (entity: string) => boolean },
): SlotReading[] {
  const place = (slot: string): number => {
    const own = form.slots.findIndex((item) => item.name === slot);
    if (slot === asked) return -2;
    return isTime(form.slots[own]?.entity ?? '') ? -1 : own;
  };
  const words = ({ start, end }: SlotReading): string => `${start} ${end}`;
  const first = new Map<string, number>();
  for (const reading of readings)
    first.set(words(reading), Math.min(place(reading.slot), first.get(words(reading)) ?? Infinity));
  return readings.filter((reading) => place(reading.slot) === first.get(words(reading)));
}

/** Why a candidate is a value of its entity. */
function whyFound({ entity, match, value, alternatives }: Candidate): string {
  const also = alternatives ? `; it could be ${alternatives.map(showValue).join(' or ')} as well` : '';
  if (match === 'misspelt') return `it is near to ${quote(showValue(value))} in ${entity}${also}`;
  if (match === 'inflected') return `it is another form of ${quote(showValue(value))} in ${entity}${also}`;
  return (match === 'exact' ? `it is a value of ${entity}` : `it reads as a value of ${entity}`) + also;
}

/** What the finders found in a text. */
export interface FoundValues {
  /** Overlaps settled for the bot as a whole, in text order. */
  entities: readonly Candidate[];
  /** What gave way. */
  overlapped: readonly Candidate[];
}

/** What the words of a message are read by, besides themselves. */
export interface ReadingAids {
  /** Of the words that the taggers look at. */
  vectors: Vectors;
  /** The slot that was asked for; it has the first claim on values of its entity. */
  asked?: string | null;
}

/** Reads the slots of one intent. */
interface Reader {
  read: (text: TokenisedText, found: FoundValues, aids: ReadingAids) => SlotsRead;
}

/** The tokens of a stretch without the values of other slots that it begins or ends with. */
function tokensBetween({ tokens }: TokenisedText, from: number, to: number, values: readonly Candidate[]): Token[] {
  const start = Math.max(from, ...values.filter((value) => value.start <= from).map((value) => value.end));
  const end = Math.min(to, ...values.filter((value) => value.end >= to).map((value) => value.start));
  return tokensWithin(tokens, start, end);
}

/** "Pitch 9": within a stretch of free words, a figure right after a word belongs to it. */
const namesOne = (text: string, from: number, { kind, start }: Candidate): boolean =>
  kind === 'number' && start > from && /^\d/.test(text.slice(start)) && /\p{L}\s?$/u.test(text.slice(from, start));

const isLearned = (kind: EntityKind | undefined): boolean => kind === 'free' || kind === 'person' || kind === 'address';

/** Reads the slots of a form. */
class FormReader implements Reader {
  readonly #document: BotDocument;
  readonly #form: Form;
  readonly #tag: Tag | undefined;
  readonly #byEntity: ReadonlyMap<string, Slot[]>;
  readonly #entityOf: ReadonlyMap<string, string>;
  /** Of slots that are two sides of a change. */
  readonly #roles: ReadonlyMap<string, Role>;

  constructor(document: BotDocument, form: Form, tag: Tag | undefined) {
    this.#document = document;
    this.#form = form;
    this.#tag = tag;
    const byEntity = new Map<string, Slot[]>();
    for (const slot of form.slots) byEntity.set(slot.entity, [...(byEntity.get(slot.entity) ?? []), slot]);
    this.#byEntity = byEntity;
    this.#entityOf = new Map(form.slots.map(({ name, entity }) => [name, entity]));
    this.#roles = new Map([...byEntity.values()].flatMap((slots) => [...rolesOf(slots, languageOf(document))]));
  }

  #kindOf(entity: string): EntityKind | undefined {
    return findEntity(this.#document, entity)?.kind;
  }

  /** Values that only the words around them tell: free words, and people and places that no finder knew. */
  #learned(
    message: TokenisedText,
    tagging: Tagging,
    candidates: readonly Candidate[],
    asked: string | null,
  ): SlotReading[] {
    const askedKind = asked === null ? undefined : this.#kindOf(this.#entityOf.get(asked) ?? '');
    return tagging.spans.flatMap(({ slot, start: from, end: to, confidence, like }): SlotReading[] => {
      const entity = this.#entityOf.get(slot);
      const kind = entity === undefined ? undefined : this.#kindOf(entity);
      if (entity === undefined || !isLearned(kind) || confidence < LIKELY) return [];
      const overlapped = candidates.filter(
        (other) =>
          other.start < to &&
          from < other.end &&
          this.#byEntity.has(other.entity) &&
          !namesOne(message.text, from, other),
      );
      if (kind !== 'free' && overlapped.some((other) => other.entity === entity)) return [];
      if (overlapped.some((other) => other.start <= from && to <= other.end)) return [];
      if (askedKind !== undefined && askedKind !== 'free' && overlapped.length > 0) return [];
      const own = tokensBetween(message, from, to, overlapped);
      if (own.length === 0) return [];
      const [start, end] = [own[0]!.start, own.at(-1)!.end];
      const words = message.text.slice(start, end);
      const alike = like();
      const near = alike ? `, and ${quote(alike.word)} is near to ${quote(alike.near)} there` : '';
      const why = `the words around it are like those around ${slot} in the utterances${near}`;
      return [{ slot, entity, start, end, text: words, value: tidy(words), why }];
    });
  }

  /**
   * In a form with a slot for each end ("from Friday to Monday"), a stretch is its two ends; where the slots are two
   * sides of a change, it is so if its words tell of a change.
   */
  #apart(candidate: Candidate, text: string): Candidate[] {
    const { ends, ...whole } = candidate;
    const slots = this.#byEntity.get(candidate.entity) ?? [];
    if (!ends || slots.length < 2) return [candidate];
    const { changes } = languageOf(this.#document);
    const isOneSide = slots.some(({ name }) => this.#roles.has(name)) && changes.isStretch(text);
    return isOneSide ? [candidate] : ends.map((end) => ({ ...whole, ...end }));
  }

  /** Values that gave way to ones which this form has no slot for count after all; bare figures do not. */
  #restored({ entities, overlapped }: FoundValues): Candidate[] {
    const own = entities.filter(({ entity }) => this.#byEntity.has(entity));
    const free = overlapped.filter(
      (candidate) =>
        this.#byEntity.has(candidate.entity) &&
        candidate.kind !== 'number' &&
        candidate.kind !== 'ordinal' &&
        !own.some(({ start, end }) => start < candidate.end && candidate.start < end),
    );
    return free.length === 0 ? [] : settleOverlaps(free);
  }

  /** How much each value of a change tells that it is to be; below 0 it was. */
  #changeTold(text: TokenisedText, candidates: readonly Candidate[]): ReadonlyMap<Candidate, number> {
    const entities = new Set([...this.#roles.keys()].map((slot) => this.#entityOf.get(slot)!));
    return new Map(
      [...entities].flatMap((entity) => {
        const own = candidates.filter((candidate) => candidate.entity === entity);
        const told = changeTold(text, own, languageOf(this.#document));
        return own.map((candidate, at): [Candidate, number] => [candidate, told[at]!]);
      }),
    );
  }

  /** Which of the slots that take a value takes this one, and why. */
  #slotFor(
    { entity, start, end }: Candidate,
    taken: ReadonlySet<string>,
    tagging: Tagging | undefined,
    { asked, told }: { asked: string | null; told: number },
  ): { slot: string; role: string } {
    const slots = this.#byEntity.get(entity)!;
    const score = ({ name }: Slot) =>
      (tagging?.likelihood(name, start, end) ?? 0) +
      (name === asked ? ASKED : 0) +
      ROLE_TOLD * told * (this.#roles.get(name) === 'coming' ? 1 : this.#roles.has(name) ? -1 : 0) -
      (slots.length > 1 && taken.has(name) ? TAKEN : 0);
    const [best] = [...slots].sort((a, b) => score(b) - score(a));
    const slot = best!.name;
    const others = slots.filter((other) => other !== best).map(({ name }) => name);
    if (others.length === 0) return { slot, role: '' };
    return slot === asked
      ? { slot, role: ', and that slot was asked for' }
      : { slot, role: `, and the words around it speak for ${slot} rather than ${others.join(' or ')}` };
  }

  /** Why a value fills no slot; `null` where it does. */
  #refusal({ entity, start, end }: Candidate, free: readonly SlotReading[]): string | null {
    if (!this.#byEntity.has(entity)) return `${this.#form.name} has no slot for ${entity}`;
    const within = free.find((reading) => start >= reading.start && end <= reading.end);
    return within ? `it lies within ${quote(within.text)}, which is read as ${within.slot}` : null;
  }

  read(text: TokenisedText, found: FoundValues, { vectors, asked = null }: ReadingAids): SlotsRead {
    const tagging = this.#tag?.(text, found.entities, vectors);
    const candidates = [...found.entities, ...this.#restored(found)].sort((a, b) => a.start - b.start);
    const free = tagging ? this.#learned(text, tagging, candidates, asked) : [];
    const passedOver: PassedOver[] = [];
    const taken = new Set<string>();
    const readings: SlotReading[] = [...free];
    const apart = candidates.flatMap((one) => this.#apart(one, text.text.slice(one.start, one.end)));
    const told = this.#changeTold(text, apart);
    for (const candidate of apart) {
      const refusal = this.#refusal(candidate, free);
      if (refusal !== null) {
        passedOver.push(passOver(candidate, text.text, refusal));
        continue;
      }
      const { slot, role } = this.#slotFor(candidate, taken, tagging, { asked, told: told.get(candidate) ?? 0 });
      taken.add(slot);
      const { entity, start, end, value } = candidate;
      const why = `${whyFound(candidate)}${role}`;
      readings.push({ slot, entity, start, end, text: text.text.slice(start, end), value, why });
    }
    readings.sort((a, b) => a.start - b.start);
    const isTime = (entity: string) => this.#kindOf(entity) === 'time';
    const kept = withoutRetracted(text.text, onePerWords(this.#form, readings, { asked, isTime }), this.#roles);
    return { slots: kept.slots, passedOver: [...passedOver, ...kept.passedOver] };
  }
}

/** For an intent without a form the entities marked in its utterances stand for slots. */
function prepareBareReader(document: BotDocument, intentName: string): Reader {
  const marked = new Set<string>();
  for (const { marks } of findIntent(document, intentName)?.utterances ?? []) {
    for (const { slot } of marks) marked.add(slot);
  }
  const read: Reader['read'] = ({ text }, { entities: candidates }) => {
    const own = candidates.filter((candidate) => marked.has(candidate.entity));
    const kept = withoutRetracted(
      text,
      own.map((candidate) => {
        const { entity, start, end, value } = candidate;
        return { slot: entity, entity, start, end, text: text.slice(start, end), value, why: whyFound(candidate) };
      }),
    );
    const others = candidates.filter((candidate) => !marked.has(candidate.entity));
    return {
      slots: kept.slots,
      passedOver: [
        ...others.map((candidate) =>
          passOver(candidate, text, `no utterance of ${intentName} marks ${candidate.entity}`),
        ),
        ...kept.passedOver,
      ],
    };
  };
  return { read };
}

/** Reads the slots of an intent. */
export type ReadSlots = (intentName: string, text: TokenisedText, found: FoundValues, aids: ReadingAids) => SlotsRead;

/** Prepares the reading of slots for every intent of a bot. @param taggers by form */
export function prepareIntentSlots(document: BotDocument, taggers: ReadonlyMap<string, Tag>): ReadSlots {
  const readers = new Map<string, Reader>();
  const forms = new Map<string, Reader>(
    document.forms.map((form) => [form.name, new FormReader(document, form, taggers.get(form.name))]),
  );
  for (const { name } of document.intents) {
    const form = formOfIntent(document, name);
    readers.set(name, form ? forms.get(form.name)! : prepareBareReader(document, name));
  }
  return (intentName, text, found, aids) =>
    readers.get(intentName)?.read(text, found, aids) ?? { slots: [], passedOver: [] };
}
