import type { MessagePort } from 'node:worker_threads';
import { LRUCache } from 'lru-cache';
import { helpThrough, readThrough } from '../../core/converse/readThrough.js';
import { takeTurn } from '../../core/converse/takeTurn.js';
import { textsOfTurn } from '../../core/converse/turn.js';
import { runWalkthrough } from '../../core/converse/walkthrough.js';
import type { Vectors } from '../../core/encode/encoder.js';
import { readLines, taughtMessages } from '../../core/measure/evaluate.js';
import type { Encode } from '../../core/recognise/answer.js';
import { lookAtModelFile, ModelFileError, readModelFile, writeModelFile } from '../../core/recognise/modelFile.js';
import { openRecogniser, type Recogniser } from '../../core/recognise/open.js';
import { prepareTraining, TrainingMemory, type PreparedTraining } from '../../core/recognise/train.js';
import { simulate } from '../../core/simulate/simulate.js';
import type { SharedModel, Task, TaskName, Tasks } from './tasks.js';

/** An opened model, with the messages it was taught. */
interface Opened {
  recogniser: Recogniser;
  taught: ReadonlySet<string>;
}

/** Memory that opened models of a thread may take, by the size of their files, in bytes. */
const MOST_OPEN = 256 * 1024 * 1024;

const opened = new LRUCache<string, Opened>({ maxSize: MOST_OPEN });

function open({ key, bytes }: SharedModel): Opened {
  const known = opened.get(key);
  if (known) return known;
  const { document, model } = readModelFile(lookAtModelFile(bytes));
  const fresh = { recogniser: openRecogniser(document, model), taught: taughtMessages(document) };
  opened.set(key, fresh, { size: Math.min(bytes.length, MOST_OPEN) });
  return fresh;
}

/** What is about to be taught here, and what bots that were taught in part leave for the next. */
let lesson: { key: string; prepared: PreparedTraining } | null = null;
const memory = new TrainingMemory();

function prepare({ document, key, slots }: Tasks['textsToTeach']['given']): PreparedTraining {
  if (lesson?.key !== key) lesson = { key, prepared: prepareTraining(document, memory, { slots }) };
  return lesson.prepared;
}

/** Asks for vectors over the port of a task. @throws Error where they cannot be made */
function encodeOver(port: MessagePort): Encode {
  let asked = 0;
  const waiting = new Map<number, { give: (vectors: Vectors) => void; fail: (error: Error) => void }>();
  port.on('message', ({ number, answer, fault }: { number: number; answer: Vectors; fault?: string }) => {
    const { give, fail } = waiting.get(number)!;
    waiting.delete(number);
    if (fault === undefined) give(answer);
    else fail(new Error(fault));
  });
  return (texts) =>
    new Promise((give, fail) => {
      waiting.set(++asked, { give, fail });
      port.postMessage({ number: asked, question: texts });
    });
}

type Doers = {
  [Name in TaskName]: (given: Tasks[Name]['given'], encode: Encode) => Promise<Tasks[Name]['gives']>;
};

const DOERS: Doers = {
  isWhole({ model }) {
    try {
      open(model);
      return Promise.resolve(true);
    } catch (error) {
      if (error instanceof ModelFileError) return Promise.resolve(false);
      throw error;
    }
  },

  recognise: ({ model, text, now, vectors }) => Promise.resolve(open(model).recogniser.recognise(text, vectors, now)),

  converse: ({ model, state, said, now, vectors }) =>
    takeTurn(open(model).recogniser, state, said, { now, encode: () => Promise.resolve(vectors) }),

  readThrough({ model, form: name, now }) {
    const { recogniser } = open(model);
    const { forms, intents } = recogniser.document;
    const form = forms.find((candidate) => candidate.name === name);
    const opener = intents.find((intent) => intent.form === name);
    return Promise.resolve(form && opener ? readThrough(recogniser, opener.name, form, now) : null);
  },

  helpThrough: ({ model, unsure, now }, encode) => helpThrough(open(model).recogniser, unsure, { now, encode }),

  textsToExplain: ({ model, text }) => Promise.resolve(open(model).recogniser.textsToExplain(text)),

  explain: ({ model, text, now, vectors }) => Promise.resolve(open(model).recogniser.explain(text, vectors, now)),

  textsOf({ model, messages, as }) {
    const { recogniser } = open(model);
    const textsOf = (message: string) =>
      as === 'turns' ? textsOfTurn(recogniser, message) : recogniser.textsToEncode(message);
    return Promise.resolve([...new Set(messages.flatMap(textsOf))]);
  },

  readLines({ model, lines, now, vectors }) {
    const { recogniser, taught } = open(model);
    return readLines(recogniser, lines, { now, taught, encode: () => Promise.resolve(vectors) });
  },

  textsToTeach: (given) => Promise.resolve(prepare(given).texts),

  teach({ vectors, ...given }) {
    const { document, key } = given;
    const model = prepare(given).train(vectors);
    const shared = (size: number) => new Uint8Array(new SharedArrayBuffer(size));
    return Promise.resolve({ key, bytes: writeModelFile(document, model, shared) });
  },

  simulate: ({ model, number, seed, now }, encode) => simulate(open(model).recogniser, number, { seed, now, encode }),

  walk: ({ model, walkthrough, now, vectors }) =>
    Promise.resolve(runWalkthrough(open(model).recogniser, walkthrough, vectors, now)),
};

const NO_PORT: Encode = () => Promise.reject(new Error('The task was given nobody to ask.'));

/** Does a task. */
export const doTask = <Name extends TaskName>({ name, given, port }: Task<Name>): Promise<Tasks[Name]['gives']> =>
  (DOERS[name] as (given: unknown, encode: Encode) => Promise<Tasks[Name]['gives']>)(
    given,
    port ? encodeOver(port) : NO_PORT,
  );
