import { LRUCache } from 'lru-cache';
import { applyDelta, type Delta } from '../../core/bot/delta.js';
import type { BotDocument } from '../../core/bot/document.js';
import { measureHeldOut, type HeldOutMeasure } from '../../core/measure/evaluate.js';
import { GivenUpError } from '../../core/recognise/check.js';
import { writeModelFile } from '../../core/recognise/modelFile.js';
import { prepareTraining, TrainingMemory, type PreparedTraining } from '../../core/recognise/train.js';

/** How a thread comes to the bot it is to teach: whole, or by what has changed since it taught the bot last. */
export type Lesson = { document: BotDocument } | { since: number; deltas: Delta[] };

/** A bot to be taught. */
export interface TrainTask {
  botId: number;
  revision: number;
  lesson: Lesson;
  /** Sentence vectors that the thread asked for. */
  vectors: ReadonlyMap<string, Float32Array>;
  /** One number; not 0 where the training is no longer wanted. */
  stop: Int32Array;
}

/** What a thread says to a task. */
export type TrainAnswer =
  | { say: 'done'; bytes: Uint8Array; heldOut: HeldOutMeasure }
  /** It lacks vectors. */
  | { say: 'lacking'; texts: string[] }
  /** It does not have the bot that the changes begin from. */
  | { say: 'unknown' }
  | { say: 'given up' };

/** What is kept of a bot between trainings, since an edit changes little. */
interface Known {
  revision: number;
  document: BotDocument;
  memory: TrainingMemory;
  prepared: PreparedTraining;
  /** Of its texts, so far. */
  vectors: Map<string, Float32Array>;
}

/** Bots whose last training a thread remembers. */
const MOST_BOTS = 4;

const shared = (size: number): Uint8Array => new Uint8Array(new SharedArrayBuffer(size));

/** Teaches bots in a thread of its own. */
export class TrainingThread {
  readonly #bots = new LRUCache<number, Known>({ max: MOST_BOTS });

  train({ botId, revision, lesson, vectors, stop }: TrainTask): TrainAnswer {
    const check = () => {
      if (Atomics.load(stop, 0) !== 0) throw new GivenUpError();
    };
    try {
      const known = this.#prepare(botId, revision, lesson);
      if (!known) return { say: 'unknown' };
      for (const [text, vector] of vectors) known.vectors.set(text, vector);
      const texts = known.prepared.texts.filter((text) => !known.vectors.has(text));
      if (texts.length > 0) return { say: 'lacking', texts };
      check();
      const model = known.prepared.train(known.vectors, check);
      const names = known.document.intents.map(({ name }) => name);
      const heldOut = measureHeldOut(model.heldOut, names);
      return { say: 'done', bytes: writeModelFile(known.document, model, shared), heldOut };
    } catch (error) {
      if (error instanceof GivenUpError) return { say: 'given up' };
      throw error;
    }
  }

  /** Comes to the bot and reads what it is taught with; once for a revision. */
  #prepare(botId: number, revision: number, lesson: Lesson): Known | null {
    const before = this.#bots.get(botId);
    if (before?.revision === revision) return before;
    const document = 'document' in lesson ? lesson.document : this.#follow(before, lesson);
    if (!document) return null;
    const memory = before?.memory ?? new TrainingMemory();
    const prepared = prepareTraining(document, memory);
    const vectors = new Map(
      prepared.texts.flatMap((text): [string, Float32Array][] => {
        const vector = before?.vectors.get(text);
        return vector ? [[text, vector]] : [];
      }),
    );
    const known = { revision, document, memory, prepared, vectors };
    this.#bots.set(botId, known);
    return known;
  }

  #follow(before: Known | undefined, { since, deltas }: { since: number; deltas: Delta[] }): BotDocument | null {
    return before?.revision === since ? deltas.reduce(applyDelta, before.document) : null;
  }
}
