import { MOST } from '../core/bot/limits.js';
import { flag, isMap, listOf, name, optionalParts, parts, text } from '../core/shape/shapes.js';
import { boolean, lazy, mixed, number, string, type ISchema } from '../core/shape/yup.js';
import { TRIAL_KINDS } from '../core/contract/trial.js';
import type { PersonSaid } from '../core/contract/try.js';

/** The longest message that is taken, in UTF-16 code units. */
const LONGEST_MESSAGE = 20_000;

const message = () =>
  string()
    .strict()
    .typeError('must be a text')
    .max(LONGEST_MESSAGE, 'A message of more than 20,000 characters is not read.');

/** A request that brings one message to be read. */
export const messageBody = parts({ text: message().defined() });

export const newBotBody = parts({ name: text(MOST.name).required('Give the bot a name.') });

export const historyBody = parts({
  direction: string()
    .strict()
    .oneOf(['undo', 'redo'] as const)
    .required(),
  overOthers: flag(),
});

/** Lines of one request. */
const MOST_TEST_LINES = 5000;
/** Slots of one line. */
const MOST_TEST_SLOTS = 200;

const testText = () => message().required('Write the message first.');
const lineIds = () => listOf(number().integer().strict().required(), MOST_TEST_LINES, { some: true });
const testSlot = parts({
  slot: name().required(),
  start: number().integer().min(0).strict().required(),
  end: number().integer().min(1).strict().required(),
  value: text(MOST.value).optional(),
});
const testSlots = () => listOf(testSlot, MOST_TEST_SLOTS).optional();
/** A message whose slots lie within it. What is no message, or has no list of slots, is told elsewhere. */
const withinText = [
  'within-text',
  'has slots that do not lie within its text',
  (line: unknown) => {
    if (!isMap(line) || !Array.isArray(line['slots'])) return true;
    const { text: message = '' } = line;
    if (typeof message !== 'string') return true;
    return (line['slots'] as unknown[]).every((slot) => {
      if (!isMap(slot) || typeof slot['start'] !== 'number' || typeof slot['end'] !== 'number') return true;
      return slot['start'] < slot['end'] && slot['end'] <= message.length;
    });
  },
] as const;
const tag = () => text(MOST.name).nullable().optional();

/** Messages with the intent each ought to have; `null`: out of scope; without one they have no label yet. */
const testLinesBody = parts({
  lines: listOf(
    parts({ text: testText(), intent: name().nullable().optional(), slots: testSlots() }).test(...withinText),
    MOST_TEST_LINES,
    { some: true, tooMany: 'At most 5,000 lines are added at once; a longer list comes in as a file.' },
  ),
});

const testLineChangeBody = parts({
  ids: lineIds(),
  change: parts({
    text: message().min(1, 'Write the message first.').optional(),
    intent: name().nullable().optional(),
    slots: testSlots(),
    value: optionalParts({
      place: number().integer().min(0).strict().required(),
      value: text(MOST.value).nullable().defined(),
    }),
    style: tag(),
    tags: optionalParts({ channel: tag(), source: tag(), language: tag() }),
  }).test(...withinText),
});

const testLineIdsBody = parts({ ids: lineIds() });

/** Bodies that may hold thousands of rows. */
export const LARGE_BODIES = {
  testLines: testLinesBody,
  testLineChange: testLineChangeBody,
  testLineIds: testLineIdsBody,
};

/** Which kept state of the bot reads a test set. */
export const runBody = parts({ state: number().integer().min(1).strict().optional() });

export const testSetChangeBody = parts({ afterEdits: boolean().strict().required() });

export const stateBody = parts({
  name: text(MOST.name).required('Give the state a name.'),
  before: number().integer().strict().optional(),
});

const wholeFrom1 = (most: number) => number().integer().min(1).max(most).strict().optional();

/** A trial that is wanted. */
export const trialBody = parts({
  kind: string().strict().oneOf(TRIAL_KINDS).required(),
  seed: wholeFrom1(1_000_000),
  repeats: wholeFrom1(20),
  set: wholeFrom1(Number.MAX_SAFE_INTEGER),
  strength: number().min(0).max(1).strict().optional(),
  conversations: wholeFrom1(1000),
});

/** A new test set: empty, or with a share of the utterances, which are taught no longer. */
export const newTestSetBody = parts({
  name: text(MOST.name).required('Give the test set a name.'),
  share: number().min(0.05).max(0.9).strict().optional(),
});

export const conversationBody = parts({ name: text(MOST.name).nullable(), kept: flag() });

/** The sender's own number for the turn. */
const clientId = text(MOST.name);
const type = string().strict().required();

const SAID = {
  text: parts({ type, text: message().required('Write something first.'), clientId }),
  choice: parts({ type, intent: name(), clientId }),
  noInput: parts({ type, clientId }),
  handBack: parts({ type, clientId }),
};

/** What a person does in Try. */
export const turnBody = lazy((value: unknown) => {
  const kind = (value as { type?: unknown } | null)?.type;
  if (typeof kind === 'string' && Object.hasOwn(SAID, kind)) return SAID[kind as keyof typeof SAID];
  return mixed().test('said', 'A turn is a text, a choice, no input or handing back.', () => false);
}) as unknown as ISchema<PersonSaid & { clientId?: string }>;
