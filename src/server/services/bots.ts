import type { Kysely } from 'kysely';
import { LRUCache } from 'lru-cache';
import { emptyBot, type BotDocument } from '../../core/bot/document.js';
import type { BotSummary, HistoryState } from '../../core/contract/bot.js';
import { ActError, applyAct, type BotAct } from '../../core/bot/acts/index.js';
import { rowsOfDocument, type Delta } from '../../core/bot/delta.js';
import { count, named } from '../../core/bot/acts/common.js';
import type { Walkthrough } from '../../core/converse/walkthrough.js';
import type { BotFileFormat } from '../../core/formats/botFile.js';
import type { TestLine } from '../../core/formats/testFile.js';
import { setAside } from '../../core/measure/testLines.js';
import type { Context } from '../context.js';
import type { Database } from '../database/schema.js';
import { InputError } from '../errors.js';
import type { EventHub } from '../events.js';
import type { FileThread } from '../files/files.js';
import type { FileContents, RequestKind } from '../files/read.js';
import { newId } from '../newId.js';
import { pause } from '../slices.js';
import {
  beginBot,
  clearHalfMade,
  countMissing,
  createBot,
  fillBot,
  historyState,
  listBots,
  loadBot,
  saveAct,
  saveShown,
  setDeleted,
  stepHistory,
  type StepOptions,
  type Stepped,
  type StoredBot,
} from '../repositories/bots.js';
import { hasConversation } from '../repositories/conversations.js';
import { documentBefore, type Direction, type Shown } from '../repositories/history.js';
import { keepState } from '../repositories/states.js';
import {
  addTestLines,
  copyTestLines,
  createTestSet,
  listTestSets,
  readTestLines,
  standingLines,
  type TestLineChange,
} from '../repositories/tests.js';
import { addWalkthroughs, listWalkthroughs } from '../repositories/walkthroughs.js';
import type { JobService, StartedJob } from './jobs.js';
import type { ModelService } from './models.js';
import { Turns } from './turns.js';

/** Bots that stay in memory. */
const MOST_BOTS = 30;

const by = ({ actor, now }: Context) => ({ actor: actor.id, at: now() });

/** A test set out of utterances. */
export interface AsideOptions {
  name: string;
  /** Of each intent, 0..1. */
  share: number;
  seed: number;
}

/** What the service of bots is made of. */
export interface BotParts {
  database: Kysely<Database>;
  models: ModelService;
  events: EventHub;
  files: FileThread;
  jobs: JobService;
}

/** Bots as they stand, and acts upon them, one at a time for each bot. */
export class BotService {
  readonly #parts: BotParts;
  readonly #bots = new LRUCache<number, StoredBot>({ max: MOST_BOTS });
  readonly #turns = new Turns<number>();
  #cutShort: readonly string[] = [];

  constructor(parts: BotParts) {
    this.#parts = parts;
  }

  /**
   * Tidies up what the program left when it ended last, and what it knew less of.
   * @param report is told of bots that cannot be read
   */
  async open(report: (error: unknown, botId: number) => void): Promise<void> {
    this.#cutShort = await clearHalfMade(this.#parts.database);
    await countMissing(this.#parts.database, report);
  }

  /** Names of bots whose making was cut short when the program ended last: nothing of them is left. */
  get cutShort(): readonly string[] {
    return this.#cutShort;
  }

  list(): Promise<BotSummary[]> {
    return listBots(this.#parts.database);
  }

  /** @throws NoSuchBotError */
  async get(id: number): Promise<StoredBot> {
    const known = this.#bots.get(id);
    if (known) return known;
    return this.#turns.take(id, () => this.#load(id));
  }

  async create({ now }: Context, document: BotDocument): Promise<number> {
    const id = await createBot(this.#parts.database, document, now());
    this.#bots.set(id, { id, document, revision: 1 });
    return id;
  }

  /** Makes a bot with nothing in it. @throws InputError where another has the name */
  async createEmpty(context: Context, wanted: string): Promise<number> {
    const name = wanted.trim();
    if (name === '') throw new InputError('Give the bot a name.');
    if ((await this.list()).some((bot) => bot.name === name)) throw new InputError(`There is another bot "${name}".`);
    return this.create(context, emptyBot(name));
  }

  /**
   * Makes a bot from the text of a bot file, as work that is shown and can be stopped.
   * @returns the work, once the file is read and found right
   * @throws InputError with every fault of the file
   */
  async bringIn({ now }: Context, source: string): Promise<StartedJob> {
    const { database, files, jobs } = this.#parts;
    const document = await files.read('bot', source);
    const id = await beginBot(database, document, now());
    const plan = { kind: 'import', total: rowsOfDocument(document) } as const;
    return jobs.start(id, plan, async (job) => {
      await fillBot(database, id, document, (rows) => job.progress(rows));
      this.#bots.set(id, { id, document, revision: 1 });
      return id;
    });
  }

  /** Keeps the test set of a test file. @returns its number @throws InputError with every fault of the file */
  async bringInTestSet(context: Context, id: number, name: string, source: string): Promise<number> {
    return this.#addTestSet(context, id, name, await this.#parts.files.read('tests', source));
  }

  /** Keeps the walkthroughs of a walkthrough file. @throws InputError with every fault of the file */
  async bringInWalkthroughs(context: Context, id: number, source: string): Promise<void> {
    await this.#addWalkthroughs(context, id, await this.#parts.files.read('walkthroughs', source));
  }

  /** Makes a copy with its test sets and walkthroughs. @returns the number of the copy */
  async duplicate(context: Context, id: number): Promise<number> {
    const { document } = await this.get(id);
    const names = (await this.list()).map((bot) => bot.name);
    let name = `${document.name} (copy)`;
    for (let number = 2; names.includes(name); number++) name = `${document.name} (copy ${number})`;
    const copy = await this.create(context, { ...document, name });
    for (const set of await listTestSets(this.#parts.database, id)) {
      const lines = (await readTestLines(this.#parts.database, id, set.id)) ?? [];
      await createTestSet(this.#parts.database, copy, { name: set.name, lines }, context.now());
    }
    const walkthroughs = (await listWalkthroughs(this.#parts.database, id)).map(({ walkthrough }) => walkthrough);
    await addWalkthroughs(this.#parts.database, copy, walkthroughs);
    return copy;
  }

  delete({ now }: Context, id: number): Promise<void> {
    return this.#turns.take(id, async () => {
      await setDeleted(this.#parts.database, id, now());
      this.#bots.delete(id);
      this.#parts.models.forget(id);
    });
  }

  restore(id: number): Promise<void> {
    return this.#turns.take(id, () => setDeleted(this.#parts.database, id, null));
  }

  /** Reads the body of a request that may hold thousands of rows. @throws InputError */
  read<Kind extends RequestKind>(kind: Kind, source: string): Promise<FileContents[Kind]> {
    return this.#parts.files.readRequest(kind, source);
  }

  /** The file of a bot. @throws NoSuchBotError */
  async file(id: number, format: BotFileFormat): Promise<{ name: string; text: string }> {
    const { document } = await this.get(id);
    return { name: document.name, text: await this.#parts.files.write(document, format) };
  }

  /** Does one act and keeps it. @throws ActError, NoSuchBotError */
  act(context: Context, id: number, act: BotAct): Promise<StoredBot> {
    return this.#turns.take(id, async () => {
      const bot = await this.#load(id);
      const done = applyAct(bot.document, act, { newId });
      // An act upon thousands of rows takes a while: whoever came meanwhile goes before it is written.
      await pause();
      const after = await this.#writing(id, () => saveAct(this.#parts.database, bot, { act, done }, by(context)));
      await this.#takeUp(after, done.delta);
      if (after !== bot) this.#tell(context, after, done.label);
      return after;
    });
  }

  /**
   * Keeps a bot by a name, as it is or as it was.
   * @param before the number of an act of its history that it is to be without, and without all that came after
   * @returns the number of the state
   * @throws InputError where that act no longer stands
   */
  keepState(
    { now }: Context,
    id: number,
    { name, before }: { name: string; before?: number | undefined },
  ): Promise<number> {
    const { database } = this.#parts;
    return this.#turns.take(id, async () => {
      const bot = await this.#load(id);
      const point =
        before === undefined ? { document: bot.document, label: null } : await documentBefore(database, bot, before);
      if (!point) throw new InputError('That act has been taken back or forgotten since. Choose another.');
      const { document, label } = point;
      return keepState(database, id, { name: name.trim(), revision: bot.revision, before: label, document, at: now() });
    });
  }

  #addTestSet(context: Context, id: number, name: string, lines: readonly TestLine[]): Promise<number> {
    return this.#turns.take(id, async () => {
      await this.#load(id);
      const set = await createTestSet(this.#parts.database, id, { name, lines }, context.now());
      await this.#show(context, id, { part: 'test_set', ids: [set], hidden: false }, `add the test set ${name}`);
      return set;
    });
  }

  /** Deletes a test set; undo brings it back with its runs. @returns whether there was one */
  deleteTestSet(context: Context, id: number, set: number): Promise<boolean> {
    return this.#turns.take(id, async () => {
      await this.#load(id);
      const found = (await listTestSets(this.#parts.database, id)).find((item) => item.id === set);
      if (!found) return false;
      await this.#show(
        context,
        id,
        { part: 'test_set', ids: [set], hidden: true },
        `delete the test set ${found.name}`,
      );
      return true;
    });
  }

  /** Makes an empty test set. @returns its number */
  newTestSet(context: Context, id: number, name: string): Promise<number> {
    return this.#addTestSet(context, id, name, []);
  }

  /** Keeps a share of the utterances of each intent as a test set, and teaches them no longer. @returns its number */
  async setAside(context: Context, id: number, { name, share, seed }: AsideOptions): Promise<number> {
    const { lines, rows } = setAside((await this.get(id)).document, share, seed);
    if (rows.length === 0) throw new InputError('No intent has utterances to spare: each keeps four of them.', []);
    const set = await this.#addTestSet(context, id, name, lines);
    await this.act(context, id, { do: 'deleteUtterances', rows });
    return set;
  }

  /** Does something with a test set. @returns `null` where there is no such set @throws ActError for an intent that is not there */
  #withTestSet<Result>(
    id: number,
    set: number,
    intents: readonly (string | null | undefined)[],
    work: () => Promise<Result>,
  ): Promise<Result | null> {
    return this.#turns.take(id, async () => {
      const { document } = await this.#load(id);
      for (const intent of new Set(intents)) if (typeof intent === 'string') named(document.intents, intent, 'intent');
      const sets = await listTestSets(this.#parts.database, id);
      return sets.some((own) => own.id === set) ? work() : null;
    });
  }

  /** Adds lines to a test set. @returns their numbers, `null` where there is no such set @throws ActError */
  addTestLines(context: Context, id: number, set: number, lines: readonly TestLine[]): Promise<number[] | null> {
    const intents = lines.map(({ intent }) => intent);
    return this.#withTestSet(id, set, intents, async () => {
      const ids = await addTestLines(this.#parts.database, set, lines);
      const what = lines.length === 1 ? `“${lines[0]!.text.slice(0, 60)}”` : `${lines.length} lines`;
      await this.#show(context, id, { part: 'test_line', ids, hidden: false }, `add ${what} to a test set`);
      return ids;
    });
  }

  /** Changes lines of a test set, by their numbers. @returns whether there was such a set @throws ActError */
  async changeTestLines(
    context: Context,
    id: number,
    set: number,
    { numbers, change }: { numbers: readonly number[]; change: TestLineChange },
  ): Promise<boolean> {
    const done = await this.#withTestSet(id, set, [change.intent], async () => {
      const { copies, lines } = await copyTestLines(this.#parts.database, set, { numbers, change });
      const label = lines.length === 1 ? 'change a test line' : `change ${lines.length} test lines`;
      await this.#show(context, id, { part: 'test_line', ids: copies, hidden: false, instead: lines }, label);
      return true;
    });
    return done ?? false;
  }

  /** Deletes lines of a test set; undo brings them back. @returns whether there was such a set */
  async deleteTestLines(context: Context, id: number, set: number, numbers: number[]): Promise<boolean> {
    const done = await this.#withTestSet(id, set, [], async () => {
      const ids = (await standingLines(this.#parts.database, set, numbers)).map((row) => row.id);
      const label = ids.length === 1 ? 'delete a test line' : `delete ${ids.length} test lines`;
      await this.#show(context, id, { part: 'test_line', ids, hidden: true }, label);
      return true;
    });
    return done ?? false;
  }

  #addWalkthroughs(context: Context, id: number, walkthroughs: readonly Walkthrough[]): Promise<void> {
    return this.#turns.take(id, async () => {
      await this.#load(id);
      const ids = await addWalkthroughs(this.#parts.database, id, walkthroughs);
      const shown: Shown = { part: 'walkthrough', ids, hidden: false };
      await this.#show(context, id, shown, `add ${count(ids.length, 'walkthrough')}`);
    });
  }

  /** Deletes a walkthrough; undo brings it back. @returns whether there was one */
  deleteWalkthrough(context: Context, id: number, walkthrough: number): Promise<boolean> {
    return this.#turns.take(id, async () => {
      await this.#load(id);
      const found = (await listWalkthroughs(this.#parts.database, id)).find((item) => item.id === walkthrough);
      if (!found) return false;
      const label = `delete the walkthrough ${found.walkthrough.name}`;
      await this.#show(context, id, { part: 'walkthrough', ids: [walkthrough], hidden: true }, label);
      return true;
    });
  }

  /** Deletes a conversation; undo brings it back. @returns whether there was one */
  deleteConversation(context: Context, id: number, conversation: number): Promise<boolean> {
    return this.#turns.take(id, async () => {
      await this.#load(id);
      if (!(await hasConversation(this.#parts.database, id, context.actor.id, conversation))) return false;
      const label = `delete conversation ${conversation}`;
      await this.#show(context, id, { part: 'conversation', ids: [conversation], hidden: true }, label);
      return true;
    });
  }

  async #show(context: Context, id: number, shown: Shown, label: string): Promise<void> {
    await saveShown(this.#parts.database, id, { shown, label }, by(context));
    if (shown.part === 'walkthrough') this.#parts.models.rerunWalkthroughs(id);
    this.#tell(context, await this.#load(id), label);
  }

  /** Tells all screens of the bot that something was done. */
  #tell({ actor, window }: Context, { id, revision }: StoredBot, label: string): void {
    const acts = this.#parts.events.countAct(id);
    this.#parts.events.publish(id, (listener) => {
      const here = window !== null && listener.window === window;
      const by = here ? 'this window' : listener.person === actor.id ? 'you' : 'somebody else';
      return { type: 'act', revision, acts, label, by };
    });
  }

  /**
   * Undoes the last act of the actor, or does it again.
   * @returns what came of it; `null` if there was nothing
   * @throws ActError where it can no longer be done
   */
  step(context: Context, id: number, direction: Direction, options: StepOptions): Promise<Stepped | null> {
    return this.#turns.take(id, async () => {
      const bot = await this.#load(id);
      const result = await this.#writing(id, () =>
        stepHistory(this.#parts.database, bot, by(context), { direction, ...options }),
      );
      if (result?.done) {
        await this.#takeUp(result.bot, result.delta);
        this.#tell(context, result.bot, `${direction} ${result.label}`);
      }
      // Where the document is the same, a walkthrough may have come back or gone.
      if (result?.done && result.bot === bot) this.#parts.models.rerunWalkthroughs(id);
      return result;
    });
  }

  history({ actor }: Context, id: number): Promise<HistoryState> {
    return historyState(this.#parts.database, id, actor.id);
  }

  async #load(id: number): Promise<StoredBot> {
    const known = this.#bots.get(id);
    if (known) return known;
    const bot = await loadBot(this.#parts.database, id);
    await this.#parts.models.follow(bot);
    this.#bots.set(id, bot);
    return bot;
  }

  /** What could not be written is read again next time: the tables alone know what stands. */
  async #writing<T>(id: number, write: () => Promise<T>): Promise<T> {
    try {
      return await write();
    } catch (error) {
      if (!(error instanceof ActError)) this.#bots.delete(id);
      throw error;
    }
  }

  /** @param delta what the act changed; `null` where the document is the same */
  async #takeUp(bot: StoredBot, delta: Delta | null): Promise<void> {
    this.#bots.set(bot.id, bot);
    await this.#parts.models.follow(bot, delta);
  }
}
