import { flag, isMap, listOf, parts, text } from '../shape/shapes.js';
import { check, type Fault } from '../shape/fault.js';
import { mixed, string, type Schema } from '../shape/yup.js';
import type { Walkthrough } from '../converse/walkthrough.js';
import type { SlotValue } from '../recognise/value.js';
import { DEEPEST, nestingOf, reservedKey } from './nesting.js';
import { isMoment } from './moment.js';

/** What a file of walkthroughs may hold at most. */
const MOST_WALKTHROUGHS = 2000;
const MOST_TURNS = 500;
const LONGEST_TURN = 4000;

const words = () => text(LONGEST_TURN);

const turn = parts({
  user: words(),
  signal: words(),
  noInput: flag(),
  handBack: flag(),
  say: words(),
}).test('event', 'needs "user", "signal", "noInput" or "handBack"', (value: unknown) => {
  const { user, signal, noInput, handBack } = (value ?? {}) as Record<string, unknown>;
  return typeof user === 'string' || typeof signal === 'string' || noInput === true || handBack === true;
});

const isPlain = (value: unknown): boolean =>
  value === null ||
  ['string', 'number', 'boolean'].includes(typeof value) ||
  (isMap(value) && Object.values(value).every(isPlain));

const slots = mixed<Record<string, SlotValue | null>>((value): value is Record<string, SlotValue | null> =>
  isMap(value),
)
  .typeError('must be an object: a value for each slot')
  .test('values', 'must have a value, a list of values or null for each slot', (value) =>
    Object.values(value ?? {}).every((own: unknown) => (Array.isArray(own) ? own.every(isPlain) : isPlain(own))),
  );

const OUTCOMES = ['completed', 'cancelled', 'handed_off', 'abandoned'] as const;

const walkthrough = parts({
  name: text(200).required('is missing: give the walkthrough a name'),
  now: text(40).test(
    'moment',
    'must be a local time such as 2026-03-04T09:30',
    (value) => value === undefined || isMoment(value),
  ),
  turns: listOf(turn, MOST_TURNS, { some: true }),
  expect: parts({
    outcome: string()
      .strict()
      .oneOf(OUTCOMES, `must be one of ${OUTCOMES.join(', ')}`),
    slots,
  }).required('is missing: say the outcome it must reach'),
});

const file = listOf(walkthrough, MOST_WALKTHROUGHS, { some: true });

export type WalkthroughsRead = { ok: true; walkthroughs: Walkthrough[] } | { ok: false; faults: Fault[] };

/** Reads walkthroughs that were parsed; every fault is listed with its place, and a file with one is refused whole. */
export function readWalkthroughs(value: unknown): WalkthroughsRead {
  if (!Array.isArray(value)) {
    return { ok: false, faults: [{ path: '', message: 'a walkthrough file is a list of walkthroughs' }] };
  }
  const reserved = reservedKey(value);
  if (reserved !== null) {
    return { ok: false, faults: [{ path: '', message: `the name “${reserved}” cannot be used` }] };
  }
  const checked = check(file as unknown as Schema<Walkthrough[]>, value);
  return checked.ok ? { ok: true, walkthroughs: checked.value } : checked;
}

/** Reads the text of a walkthrough file, which is JSON. */
export function readWalkthroughFile(source: string): WalkthroughsRead {
  if (nestingOf(source) > DEEPEST) {
    return { ok: false, faults: [{ path: '', message: `the file is nested more than ${DEEPEST} deep` }] };
  }
  let value: unknown;
  try {
    value = JSON.parse(source.replace(/^\uFEFF/, ''));
  } catch {
    return { ok: false, faults: [{ path: '', message: 'the file is not JSON' }] };
  }
  return readWalkthroughs(value);
}
