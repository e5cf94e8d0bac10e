import type { InferType, Schema } from '../../shape/yup.js';
import { closest } from '../../text/distance.js';
import type { BotDocument } from '../document.js';
import { applyDelta, deltaBetween, MisfitError, touchedBy, type Delta } from '../delta.js';
import { check, type Fault } from '../../shape/fault.js';
import { isMap } from '../../shape/shapes.js';
import { newFaults, withMainForms } from '../validate.js';
import { ActError, type ActContext, type ActKind, type Outcome, type Renaming } from './act.js';
import { DESK_ACTS } from './desks.js';
import { ENTITY_ACTS } from './entities.js';
import { FORM_ACTS } from './forms.js';
import { INTENT_ACTS } from './intents.js';
import { SETTINGS_ACTS } from './settings.js';
import { SLOT_ACTS } from './slots.js';
import { UTTERANCE_ACTS } from './utterances.js';
import { VALUE_ACTS } from './values.js';

export { ActError, type ActContext, type Renaming } from './act.js';
export type { EntityChange } from './entities.js';
export type { FormChange } from './forms.js';
export type { IntentChange } from './intents.js';
export type { GateChange, NoMatchChange, SettingsChange } from './settings.js';
export type { SlotChange } from './slots.js';
export type { RowReference } from './utterances.js';
export type { ValueChange } from './values.js';

/** Every kind of act upon a bot. */
export const ACTS = [
  ...INTENT_ACTS,
  ...UTTERANCE_ACTS,
  ...ENTITY_ACTS,
  ...VALUE_ACTS,
  ...FORM_ACTS,
  ...SLOT_ACTS,
  ...DESK_ACTS,
  ...SETTINGS_ACTS,
] as const;

type ActOf<Kind> = Kind extends ActKind<infer Name, infer Shape> ? { do: Name } & InferType<Shape> : never;

/**
 * One act of a person upon a bot. An act names what it changes and nothing beside it, so that two acts that follow each
 * other fast, or from two windows, both stand.
 */
export type BotAct = ActOf<(typeof ACTS)[number]>;

type AnyKind = {
  name: string;
  shape: Schema;
  apply: (document: BotDocument, parts: never, context: ActContext) => Outcome;
};

const KINDS: ReadonlyMap<string, AnyKind> = new Map(ACTS.map((kind) => [kind.name, kind as unknown as AnyKind]));

/** What takes an act back: the rows and settings as they were before it. */
export interface Restore {
  delta: Delta;
  renaming?: Renaming;
}

/** An act that was done. */
export interface Done extends Outcome {
  /** What it changed, row by row. */
  delta: Delta;
  inverse: Restore;
  /** Names of everything it changed. */
  touched: string[];
}

const sentence = (words: string): string =>
  `${words.charAt(0).toUpperCase()}${words.slice(1)}${/[.?!]$/.test(words) ? '' : '.'}`;

/** The renaming that takes another back. */
function reversed(renaming: Renaming): Renaming {
  const { from, to } = renaming;
  if (renaming.what !== 'slot') return { ...renaming, from: to, to: from };
  return { ...renaming, from: to, to: from, ownSlots: renaming.ownSlots.map((slot) => (slot === from ? to : slot)) };
}

function refuseFaults(before: BotDocument, after: BotDocument): void {
  const faults = newFaults(before, after);
  const [first] = faults;
  if (!first) return;
  const more = faults.length > 1 ? ` There are ${faults.length - 1} more faults.` : '';
  throw new ActError(`${sentence(first.message)}${more}`, faults);
}

function done(before: BotDocument, outcome: Outcome): Done {
  const { document, renaming } = outcome;
  const delta = deltaBetween(before, document);
  const inverse = {
    delta: deltaBetween(document, before),
    ...(renaming ? { renaming: reversed(renaming) } : {}),
  };
  return { ...outcome, delta, inverse, touched: touchedBy(delta) };
}

/**
 * Does one act upon a document. The document given is not changed; parts the act did not touch stay the same objects.
 * @throws ActError if the act cannot be done or would leave a fault that was not there before
 */
export function applyAct(document: BotDocument, act: BotAct, context: ActContext): Done {
  const { do: name, ...parts } = act;
  const outcome = KINDS.get(name)!.apply(document, parts as never, context);
  const settled = { ...outcome, document: withMainForms(outcome.document) };
  refuseFaults(document, settled.document);
  return done(document, settled);
}

/**
 * Takes an act back, or does again what was taken back.
 * @param label of the act
 * @throws ActError if what it speaks of has changed so that it cannot be
 */
export function applyRestore(document: BotDocument, { delta, renaming }: Restore, label: string): Done {
  const after = restored(document, delta, label);
  refuseFaults(document, after);
  return done(document, { document: after, label, ...(renaming ? { renaming } : {}) });
}

function restored(document: BotDocument, delta: Delta, label: string): BotDocument {
  try {
    return applyDelta(document, delta);
  } catch (error) {
    if (error instanceof MisfitError)
      throw new ActError(`${error.message}, so “${label}” can no longer be taken back.`);
    throw error;
  }
}

/**
 * A document without some acts, taken back one after another.
 * @param acts in that order
 * @throws ActError if one cannot be taken back, or if that would leave a fault that was not there before
 */
export function withoutActs(document: BotDocument, acts: readonly { restore: Restore; label: string }[]): BotDocument {
  const before = acts.reduce((whole, { restore, label }) => restored(whole, restore.delta, label), document);
  refuseFaults(document, before);
  return before;
}

/** What reading an act gives. */
export type ActRead = { ok: true; act: BotAct } | { ok: false; faults: Fault[] };

/** Reads an act as it comes in; what is not known of it is refused. */
export function readAct(value: unknown): ActRead {
  const name = isMap(value) ? value['do'] : undefined;
  const kind = typeof name === 'string' ? KINDS.get(name) : undefined;
  if (!kind || !isMap(value)) {
    const near = typeof name === 'string' ? closest(name.slice(0, 100), [...KINDS.keys()]) : undefined;
    return { ok: false, faults: [{ path: 'do', message: `names no act${near ? `; did you mean "${near}"?` : ''}` }] };
  }
  const { do: _, ...parts } = value;
  const checked = check(kind.shape, parts);
  return checked.ok ? { ok: true, act: { do: name, ...(checked.value as object) } as BotAct } : checked;
}
