import type { Kysely } from 'kysely';
import type { ModelState } from '../../core/contract/bot.js';
import type { PersonSaid } from '../../core/contract/try.js';
import type { Delta } from '../../core/bot/delta.js';
import type { ConversationState, Step } from '../../core/converse/state.js';
import type { HelpThrough } from '../../core/converse/readThrough.js';
import type { TranscriptLine, WalkthroughResult } from '../../core/converse/walkthrough.js';
import type { HeldOutMeasure } from '../../core/measure/evaluate.js';
import type { Explanation } from '../../core/recognise/explain.js';
import type { HeldOutPrediction } from '../../core/recognise/intentModel.js';
import type { UnreadUtterance } from '../../core/recognise/model.js';
import { heldOutOf, type ModelFile } from '../../core/recognise/modelFile.js';
import type { Recognition } from '../../core/recognise/recognition.js';
import type { Answering } from '../answering/answering.js';
import type { SharedModel } from '../answering/tasks.js';
import type { Database } from '../database/schema.js';
import type { EventHub } from '../events.js';
import type { ModelStore } from '../models/store.js';
import type { StoredBot } from '../repositories/bots.js';
import { findModel, keepModel } from '../repositories/models.js';
import { localNow } from '../time.js';
import { TrainingQueue, type Taught, type TrainingWish } from '../training/queue.js';
import type { EncodingService } from './encoding.js';
import { Turns } from './turns.js';
import type { WalkthroughRuns } from './walkthroughRuns.js';

/** A model that answers, with what is told of it. */
export interface CurrentModel {
  revision: number;
  trainedAt: string;
  file: string;
  leftOut: number;
  unread: UnreadUtterance[];
  heldOut: HeldOutMeasure;
}

/** What is known of a bot that is in use. */
interface Entry {
  model: CurrentModel | null;
  /** What models that had not learned from an utterance made of it; read when it is first asked for. */
  predictions: HeldOutPrediction[] | null;
  wanted: StoredBot;
  seconds: number | null;
  fault: string | null;
  walkthroughs: WalkthroughResult[] | null;
  /** The model that the walkthroughs have run with. */
  walkedWith: CurrentModel | null;
  /** Told when the model changes or its training fails. */
  waiting: Set<() => void>;
}

/** What the model service is made of. */
export interface ModelParts {
  database: Kysely<Database>;
  answering: Answering;
  encoding: EncodingService;
  store: ModelStore;
  events: EventHub;
  walkthroughRuns: WalkthroughRuns;
  /** Is told of work in the background that failed. */
  report: (error: unknown, botId: number) => void;
}

/** The model of a bot that cannot be taught, in words for the person who asks it. */
export class NoModelError extends Error {}

const FAULT = 'The model could not be trained with the last change';

/** Keeps a trained model for every bot in use: retrains after each act, and answers from the last good one meanwhile. */
export class ModelService {
  readonly #parts: ModelParts;
  readonly #entries = new Map<number, Entry>();
  readonly #loading = new Turns<number>();
  readonly #queue: TrainingQueue;
  #closing = false;
  #whenCurrent: (botId: number) => void = () => undefined;

  constructor(parts: ModelParts) {
    this.#parts = parts;
    this.#queue = new TrainingQueue({
      vectorsOf: (botId, texts) => parts.encoding.vectorsForBot(botId, texts),
      taught: (taught) => this.#takeUp(taught),
      failed: (wish, error) => this.#failed(wish, error),
      isWatched: (botId) => parts.events.isWatched(botId),
    });
  }

  /** Has somebody told each time that a model has come up with its bot. */
  whenCurrent(told: (botId: number) => void): void {
    this.#whenCurrent = told;
  }

  /**
   * Takes up a bot as it stands now; trains if the model is older.
   * @param delta what changed since the bot was last taken up, where that is known
   */
  async follow(bot: StoredBot, delta: Delta | null = null): Promise<void> {
    const entry = this.#entries.get(bot.id) ?? (await this.#loading.take(bot.id, () => this.#load(bot)));
    this.#queue.see(bot.id);
    if (bot.revision <= entry.wanted.revision) return;
    entry.wanted = bot;
    entry.fault = null;
    this.#queue.want(wishOf(bot), delta);
    this.#tell(bot.id, entry);
  }

  async #load(bot: StoredBot): Promise<Entry> {
    const known = this.#entries.get(bot.id);
    if (known) return known;
    const { database } = this.#parts;
    const stored = await findModel(database, bot.id);
    const file = stored && (await this.#wholeFile(stored.file));
    const entry: Entry = {
      model: stored && file ? currentModel(stored, file) : null,
      predictions: null,
      wanted: bot,
      seconds: null,
      fault: null,
      walkthroughs: null,
      walkedWith: null,
      waiting: new Set(),
    };
    this.#entries.set(bot.id, entry);
    if (entry.model?.revision === bot.revision) void this.#walk(bot.id, entry);
    else this.#queue.want(wishOf(bot), null);
    return entry;
  }

  /** A model file that can be opened; one that is damaged is taken away. */
  async #wholeFile(name: string): Promise<ModelFile | null> {
    const { answering, store } = this.#parts;
    const file = await store.find(name);
    if (!file) return null;
    const whole = await answering.run('person', 'isWhole', { model: { key: name, bytes: file.bytes } });
    if (whole) return file;
    await store.discard(name);
    return null;
  }

  /** The state of a bot's model; `null` for a bot that nobody has opened yet. */
  state(botId: number): ModelState | null {
    const entry = this.#entries.get(botId);
    if (!entry) return null;
    const { model, wanted, seconds, fault, walkedWith } = entry;
    const current = model?.revision === wanted.revision;
    return {
      state: model === null ? 'none' : current ? 'current' : 'catching up',
      settled: current && walkedWith === model,
      revision: model?.revision ?? null,
      trainedAt: model?.trainedAt ?? null,
      leftOut: model?.leftOut ?? 0,
      seconds,
      fault,
    };
  }

  /** Takes up a bot and tells the state of its model. */
  async stateOf(bot: StoredBot): Promise<ModelState> {
    await this.follow(bot);
    return this.state(bot.id)!;
  }

  /** The model that answers now; waits only where there has never been one. @throws NoModelError */
  async answering(bot: StoredBot): Promise<CurrentModel> {
    await this.follow(bot);
    return this.#waitFor(bot.id, ({ model }) => model);
  }

  /** The model taught with the bot as it stands; waits until it is. @throws NoModelError where it cannot be */
  async current(bot: StoredBot): Promise<CurrentModel> {
    await this.follow(bot);
    return this.#waitFor(bot.id, ({ model, wanted }) => (model?.revision === wanted.revision ? model : null));
  }

  /** What answers now; `null` while the first model of a bot is taught: a screen does not wait for that. */
  async model(bot: StoredBot): Promise<CurrentModel | null> {
    await this.follow(bot);
    return this.#entries.get(bot.id)?.model ?? null;
  }

  /** What models that had not learned from an utterance made of it; none while the first model is taught. */
  async predictions(bot: StoredBot): Promise<readonly HeldOutPrediction[]> {
    const model = await this.model(bot);
    const entry = this.#entries.get(bot.id);
    if (!model || !entry) return [];
    if (entry.model === model && entry.predictions) return entry.predictions;
    const file = await this.#parts.store.find(model.file);
    const predictions = file ? heldOutOf(file) : [];
    if (entry.model === model) entry.predictions = predictions;
    return predictions;
  }

  /** Results of the bot's walkthroughs with the model that answers; `null` until they have run. */
  walkthroughs(botId: number): WalkthroughResult[] | null {
    return this.#entries.get(botId)?.walkthroughs ?? null;
  }

  /** The figures of a bot that come from its model. */
  figures(botId: number): { teach: number | null; try: { passing: number; all: number } | null } {
    const entry = this.#entries.get(botId);
    const results = entry?.walkthroughs ?? [];
    return {
      teach: entry?.model?.heldOut.accuracy ?? null,
      try: results.length > 0 ? { passing: results.filter(({ passed }) => passed).length, all: results.length } : null,
    };
  }

  /** Runs the walkthroughs again in the background, after one was added or taken away. */
  rerunWalkthroughs(botId: number): void {
    const entry = this.#entries.get(botId);
    if (!entry?.model) return;
    entry.walkedWith = null;
    this.#tell(botId, entry);
    void this.#walk(botId, entry);
  }

  /** Reads one message with the model that answers now. */
  async recognise(bot: StoredBot, text: string): Promise<Recognition> {
    const model = await this.shared(await this.answering(bot));
    return this.#parts.answering.recognise(model, text, localNow(bot.document.timeZone));
  }

  /** Takes a conversation one turn further with the model that answers now. */
  async converse(
    bot: StoredBot,
    state: ConversationState,
    said: PersonSaid,
    now: string,
  ): Promise<{ result: Step; revision: number }> {
    const current = await this.answering(bot);
    const model = await this.shared(current);
    const result = await this.#parts.answering.converse(model, state, said, now);
    return { result, revision: current.revision };
  }

  /** Why a message is read as it is. Its many texts are encoded with the work in bulk, so that others go on. */
  async explain(bot: StoredBot, text: string): Promise<Explanation> {
    const { answering, encoding } = this.#parts;
    const model = await this.shared(await this.answering(bot));
    const texts = await answering.run('person', 'textsToExplain', { model, text });
    const vectors = await encoding.vectorsOf(texts, { keep: false });
    return answering.run('person', 'explain', { model, text, now: localNow(bot.document.timeZone), vectors });
  }

  /** The conversation that a form gives; `null` while there is no model, and where no intent opens the form. */
  async readThrough(bot: StoredBot, form: string): Promise<TranscriptLine[] | null> {
    const current = await this.model(bot);
    if (!current) return null;
    const model = await this.shared(current);
    const now = localNow(bot.document.timeZone);
    return this.#parts.answering.run('person', 'readThrough', { model, form, now });
  }

  /**
   * What the bot does where it cannot act on what it hears; `null` while there is no model.
   * @param unsure messages that it may be unsure about
   */
  async helpThrough(bot: StoredBot, unsure: string[]): Promise<HelpThrough | null> {
    const current = await this.model(bot);
    if (!current) return null;
    const model = await this.shared(current);
    return this.#parts.answering.run('person', 'helpThrough', { model, unsure, now: localNow(bot.document.timeZone) });
  }

  /** A model in memory that threads share. @throws NoModelError where its file is gone */
  async shared({ file }: CurrentModel): Promise<SharedModel> {
    const found = await this.#parts.store.find(file);
    if (!found) throw new NoModelError('The file of the model is gone. Change something, and it is taught anew.');
    return { key: file, bytes: found.bytes };
  }

  forget(botId: number): void {
    this.#entries.delete(botId);
    this.#queue.forget(botId);
  }

  async close(): Promise<void> {
    this.#closing = true;
    await this.#queue.close();
    for (const { waiting } of this.#entries.values()) for (const tell of waiting) tell();
  }

  async #takeUp({ wish: { botId, revision }, bytes, heldOut, seconds }: Taught): Promise<void> {
    const { database, store } = this.#parts;
    const file = `bot-${botId}-${revision}.model`;
    const kept = await store.keep(file, bytes);
    const entry = this.#entries.get(botId);
    if (!entry || (entry.model && entry.model.revision > revision)) return store.remove(file);
    const before = entry.model;
    const stored = { revision, file, heldOut, trainedAt: new Date().toISOString() };
    await keepModel(database, botId, stored);
    Object.assign(entry, { model: currentModel(stored, kept), predictions: null, seconds, fault: null });
    this.#tell(botId, entry);
    if (before && before.file !== file) await store.remove(before.file);
    if (entry.wanted.revision !== revision) return;
    void this.#walk(botId, entry);
    this.#whenCurrent(botId);
  }

  #failed({ botId, revision }: TrainingWish, error: unknown): void {
    this.#parts.report(error, botId);
    const entry = this.#entries.get(botId);
    if (!entry || entry.wanted.revision !== revision) return;
    entry.fault = entry.model
      ? `${FAULT}; the one before it answers. It is tried again after a while, and with the next change.`
      : `${FAULT}. It is tried again after a while, and with the next change.`;
    this.#tell(botId, entry);
  }

  #tell(botId: number, entry: Entry): void {
    for (const tell of [...entry.waiting]) tell();
    const model = this.state(botId);
    const figures = this.figures(botId);
    if (model) this.#parts.events.publish(botId, () => ({ type: 'model', model, figures }));
  }

  /** Waits until a bot's model is as wanted. @throws NoModelError where the training fails or the service is closed */
  async #waitFor(botId: number, find: (entry: Entry) => CurrentModel | null): Promise<CurrentModel> {
    for (;;) {
      const entry = this.#entries.get(botId);
      const found = entry && find(entry);
      if (found) return found;
      if (!entry || this.#closing) throw new NoModelError('The model could not be trained.');
      if (entry.fault !== null) throw new NoModelError(entry.fault);
      await new Promise<void>((resolve) => {
        const tell = () => {
          entry.waiting.delete(tell);
          resolve();
        };
        entry.waiting.add(tell);
      });
    }
  }

  /** Runs the walkthroughs in the background; a fault there is reported and leaves the model in use. */
  async #walk(botId: number, entry: Entry): Promise<void> {
    const { model } = entry;
    if (!model) return;
    try {
      const shared = await this.shared(model);
      const results = await this.#parts.walkthroughRuns.run(botId, entry.wanted.document.timeZone, shared);
      if (entry.model !== model || results === null) return;
      entry.walkthroughs = results;
      entry.walkedWith = model;
      this.#tell(botId, entry);
    } catch (error) {
      // Work that the end of the program cuts short is no fault.
      if (!this.#closing) this.#parts.report(error, botId);
    }
  }
}

const wishOf = ({ id, revision, document }: StoredBot): TrainingWish => ({ botId: id, revision, document });

const currentModel = (
  { revision, trainedAt, file, heldOut }: Omit<CurrentModel, 'leftOut' | 'unread'>,
  { header: { facts } }: ModelFile,
): CurrentModel => ({ revision, trainedAt, file, heldOut, leftOut: facts.leftOut, unread: facts.unread });
