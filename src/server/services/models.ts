import type { Kysely } from 'kysely';
import { textsOfTurn } from '../../core/converse/turn.js';
import { walk, type Walkthrough, type WalkthroughResult } from '../../core/converse/walkthrough.js';
import { step } from '../../core/converse/step.js';
import type { ConversationEvent, ConversationState, Step } from '../../core/converse/state.js';
import type { PersonSaid } from '../../core/contract/try.js';
import type { Recognition } from '../../core/recognise/recognition.js';
import type { ModelState } from '../../core/contract/bot.js';
import type { BotDocument } from '../../core/bot/document.js';
import type { Explanation } from '../../core/recognise/explain.js';
import { openRecogniser, type Recogniser, type RecogniserModel } from '../../core/recognise/recogniser.js';
import type { TrainAnswer, TrainTask } from '../../workers/train.worker.js';
import trainWorker from '../../workers/train.worker.ts?nodeWorker';
import type { Database } from '../database/schema.js';
import { modelFromBytes } from '../modelBytes.js';
import { localNow } from '../time.js';
import { loadModel, saveModel } from '../repositories/models.js';
import { listWalkthroughs } from '../repositories/walkthroughs.js';
import type { StoredBot } from '../repositories/bots.js';
import { startWorker, type WorkerThread } from '../workers/pool.js';
import type { EncodingService } from './encoding.js';

/** A model that answers, with what it came from. */
export interface OpenModel {
  revision: number;
  trainedAt: string;
  recogniser: Recogniser;
  model: RecogniserModel;
}

interface Entry {
  open: OpenModel | null;
  wanted: StoredBot;
  training: Promise<void> | null;
  seconds: number | null;
  fault: string | null;
  walkthroughs: WalkthroughResult[] | null;
  /** The model that the walkthroughs have run with. */
  walkedWith: OpenModel | null;
}

/** Acts that follow each other this fast are taught together, in milliseconds. */
const GATHER = 60;

/** How long one piece of work may keep others waiting, in milliseconds. */
const LONGEST_TURN = 8;

const pause = (milliseconds: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Does work that comes in steps; other work goes on between them. */
async function inTurns<T>(steps: Generator<void, T>): Promise<T> {
  await pause(0);
  for (let turn = performance.now(); ;) {
    const next = steps.next();
    if (next.done) return next.value;
    if (performance.now() - turn < LONGEST_TURN) continue;
    await pause(0);
    turn = performance.now();
  }
}

/** The texts whose vectors the turns of conversations need, a message at a step. */
function* textsOf(recogniser: Recogniser, messages: readonly string[]): Generator<void, string[]> {
  const texts = new Set<string>();
  for (const message of messages) {
    for (const text of textsOfTurn(recogniser, message)) texts.add(text);
    yield;
  }
  return [...texts];
}

/** Keeps a trained model for every bot in use: retrains after each act, and answers from the last good one meanwhile. */
export class ModelService {
  readonly #database: Kysely<Database>;
  readonly #encoding: EncodingService;
  readonly #entries = new Map<number, Entry>();
  readonly #trainer: WorkerThread<TrainTask, TrainAnswer>;
  readonly #report: (error: unknown, botId: number) => void;
  #closing = false;

  /** @param report is told of trainings that failed */
  constructor(database: Kysely<Database>, encoding: EncodingService, report: (error: unknown, botId: number) => void) {
    this.#database = database;
    this.#encoding = encoding;
    this.#report = report;
    this.#trainer = startWorker(trainWorker);
  }

  /** Takes up a bot as it stands now; trains if the model is older. */
  async follow(bot: StoredBot): Promise<void> {
    let entry = this.#entries.get(bot.id);
    if (!entry) {
      const stored = await loadModel(this.#database, bot.id);
      entry = this.#entries.get(bot.id) ?? {
        open: stored && {
          revision: stored.revision,
          trainedAt: stored.trainedAt,
          recogniser: openRecogniser(stored.document, stored.model),
          model: stored.model,
        },
        wanted: bot,
        training: null,
        seconds: null,
        fault: null,
        walkthroughs: null,
        walkedWith: null,
      };
      this.#entries.set(bot.id, entry);
      if (entry.open?.revision === bot.revision) void this.#runWalkthroughs(bot.id, entry);
    }
    if (bot.revision >= entry.wanted.revision) entry.wanted = bot;
    if (entry.open?.revision !== entry.wanted.revision) this.#train(bot.id, entry);
  }

  /** The state of a bot's model; `null` for a bot that nobody has opened yet. */
  state(botId: number): ModelState | null {
    const entry = this.#entries.get(botId);
    if (!entry) return null;
    const { open, wanted, seconds, fault, walkedWith } = entry;
    const current = open?.revision === wanted.revision;
    return {
      state: open === null ? 'none' : current ? 'current' : 'catching up',
      settled: current && walkedWith === open,
      revision: open?.revision ?? null,
      trainedAt: open?.trainedAt ?? null,
      leftOut: open?.model.leftOut ?? 0,
      seconds,
      fault,
    };
  }

  /** Takes up a bot and tells the state of its model. */
  async stateOf(bot: StoredBot): Promise<ModelState> {
    await this.follow(bot);
    return this.state(bot.id)!;
  }

  /** The model that answers now; waits only where there has never been one. */
  async answering(bot: StoredBot): Promise<OpenModel> {
    await this.follow(bot);
    const entry = this.#entries.get(bot.id)!;
    if (!entry.open) await entry.training;
    if (!entry.open) throw new Error(entry.fault ?? 'The model could not be trained.');
    return entry.open;
  }

  /** The model taught with the bot as it stands; waits until it is. */
  async current(bot: StoredBot): Promise<OpenModel> {
    await this.follow(bot);
    const entry = this.#entries.get(bot.id)!;
    while (entry.training) await entry.training;
    return this.answering(entry.wanted);
  }

  /** Results of the bot's walkthroughs with the model that answers; `null` until they have run. */
  walkthroughs(botId: number): WalkthroughResult[] | null {
    return this.#entries.get(botId)?.walkthroughs ?? null;
  }

  /** Runs the walkthroughs again in the background, after one was added or taken away. */
  rerunWalkthroughs(botId: number): void {
    const entry = this.#entries.get(botId);
    if (!entry?.open) return;
    entry.walkedWith = null;
    void this.#runWalkthroughs(botId, entry);
  }

  /** Reads one message with the model that answers now. */
  async recognise(bot: StoredBot, text: string): Promise<Recognition> {
    const { recogniser } = await this.answering(bot);
    const vectors = await this.#encoding.vectorsNow(recogniser.textsToEncode(text));
    return recogniser.recognise(text, vectors, localNow(bot.document.timeZone));
  }

  /** Takes a conversation one turn further with the model that answers now. */
  async converse(
    bot: StoredBot,
    state: ConversationState,
    said: PersonSaid,
    now: string,
  ): Promise<{ result: Step; revision: number }> {
    const { recogniser, revision } = await this.answering(bot);
    const event: ConversationEvent =
      said.type === 'text'
        ? { ...said, now, vectors: await this.#encoding.vectorsNow(textsOfTurn(recogniser, said.text)) }
        : said;
    return { result: step(recogniser, state, event), revision };
  }

  /** Why a message is read as it is; other work goes on between the steps. */
  async explain(bot: StoredBot, text: string): Promise<Explanation> {
    const { recogniser } = await this.answering(bot);
    const vectors = await this.#encoding.vectorsNow(recogniser.textsToExplain(text));
    return inTurns(recogniser.explain(text, vectors, localNow(bot.document.timeZone)));
  }

  forget(botId: number): void {
    this.#entries.delete(botId);
  }

  async close(): Promise<void> {
    this.#closing = true;
    await this.#trainer.destroy();
  }

  #train(botId: number, entry: Entry): void {
    entry.training ??= this.#trainUntilCurrent(botId, entry).finally(() => (entry.training = null));
  }

  async #trainUntilCurrent(botId: number, entry: Entry): Promise<void> {
    while (entry.open?.revision !== entry.wanted.revision) {
      await pause(GATHER);
      const bot = entry.wanted;
      const started = performance.now();
      try {
        const bytes = await this.#teach(bot.document);
        const model = modelFromBytes(bytes);
        if (!model) throw new Error('The model came back damaged.');
        await pause(0);
        const trainedAt = new Date().toISOString();
        entry.open = { revision: bot.revision, trainedAt, recogniser: openRecogniser(bot.document, model), model };
        entry.seconds = (performance.now() - started) / 1000;
        entry.fault = null;
        if (this.#entries.get(botId) === entry) {
          await saveModel(this.#database, botId, { revision: bot.revision, document: bot.document, trainedAt }, bytes);
        }
      } catch (error) {
        // A training that the end of the program cuts short is no fault.
        if (this.#closing) return;
        entry.fault = 'The model could not be trained with the last change; the one before it answers.';
        this.#report(error, botId);
        return;
      }
    }
    await this.#runWalkthroughs(botId, entry);
  }

  /** Has the model trained; vectors that the training thread lacks are brought to it until it has all. */
  async #teach(document: BotDocument): Promise<Uint8Array> {
    let vectors = new Map<string, Float32Array>();
    for (;;) {
      const answer = await this.#trainer.run({ document, vectors });
      if ('bytes' in answer) return answer.bytes;
      vectors = await this.#encoding.vectorsOf(answer.missing);
    }
  }

  /** Runs the walkthroughs in the background; a fault there is reported and leaves the model in use. */
  async #runWalkthroughs(botId: number, entry: Entry): Promise<void> {
    try {
      await this.#walk(botId, entry);
    } catch (error) {
      // Work that the end of the program cuts short is no fault.
      if (!this.#closing) this.#report(error, botId);
    }
  }

  /** One that cannot be run is told as failed, and the others run. */
  async #walkOne(
    botId: number,
    { name }: Walkthrough,
    steps: Generator<void, WalkthroughResult>,
  ): Promise<WalkthroughResult> {
    try {
      return await inTurns(steps);
    } catch (error) {
      this.#report(error, botId);
      const faults = ['it could not be run: something in it cannot be read'];
      return { name, outcome: 'abandoned', slots: {}, passed: false, faults, transcript: [] };
    }
  }

  async #walk(botId: number, entry: Entry): Promise<void> {
    const { open } = entry;
    if (!open) return;
    const stored = await listWalkthroughs(this.#database, botId);
    const said = stored.flatMap(({ walkthrough }) => walkthrough.turns.flatMap((turn) => turn.user ?? []));
    const vectors = await this.#encoding.vectorsOf(await inTurns(textsOf(open.recogniser, said)));
    const now = localNow(open.recogniser.document.timeZone);
    const results: WalkthroughResult[] = [];
    for (const { walkthrough } of stored) {
      results.push(await this.#walkOne(botId, walkthrough, walk(open.recogniser, walkthrough, vectors, now)));
    }
    if (entry.open !== open) return;
    entry.walkthroughs = results;
    entry.walkedWith = open;
  }
}
