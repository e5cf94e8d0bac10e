import type { Kysely } from 'kysely';
import { findForm, type BotDocument } from '../../core/bot/document.js';
import type { BotSummary, HistoryState } from '../../core/contract/bot.js';
import { applyEdit, type Edit } from '../../core/bot/edit.js';
import { count, named } from '../../core/bot/edits/common.js';
import type { Walkthrough } from '../../core/converse/walkthrough.js';
import type { TestLine } from '../../core/formats/testFile.js';
import type { Database } from '../database/schema.js';
import {
  createBot,
  historyState,
  listBots,
  loadBot,
  saveAct,
  saveShown,
  setDeleted,
  stepHistory,
  type StoredBot,
} from '../repositories/bots.js';
import { readConversation } from '../repositories/conversations.js';
import type { Renaming, Shown } from '../repositories/history.js';
import { addTestLine, createTestSet, listTestSets, readTestLines } from '../repositories/tests.js';
import { addWalkthroughs, listWalkthroughs } from '../repositories/walkthroughs.js';
import type { ModelService } from './models.js';

const now = (): string => new Date().toISOString();

/** What tests and walkthroughs are to follow when an act calls something otherwise. */
function renamingOf(document: BotDocument, edit: Edit): Renaming | undefined {
  if (edit.do === 'changeIntent' && edit.to.name !== undefined && edit.to.name.trim() !== edit.name) {
    return { what: 'intent', from: edit.name, to: edit.to.name.trim() };
  }
  if (edit.do === 'changeValue' && edit.to.value !== undefined && edit.to.value.trim() !== edit.value) {
    const slots = document.forms.flatMap((form) => form.slots.filter(({ entity }) => entity === edit.entity));
    const names = [edit.entity, ...slots.map(({ name }) => name)];
    return { what: 'value', from: edit.value, to: edit.to.value.trim(), slots: [...new Set(names)] };
  }
  if (edit.do !== 'renameSlot') return undefined;
  return {
    what: 'slot',
    from: edit.from,
    to: edit.to.trim(),
    intents: document.intents.filter(({ form }) => form === edit.form).map(({ name }) => name),
    ownSlots: findForm(document, edit.form)?.slots.map(({ name }) => name) ?? [],
    otherSlots: document.forms
      .filter(({ name }) => name !== edit.form)
      .flatMap(({ slots }) => slots.map(({ name }) => name)),
  };
}

/** Bots as they stand, and acts upon them, one at a time for each bot. */
export class BotService {
  readonly #database: Kysely<Database>;
  readonly #models: ModelService;
  readonly #bots = new Map<number, StoredBot>();
  readonly #queues = new Map<number, Promise<unknown>>();

  constructor(database: Kysely<Database>, models: ModelService) {
    this.#database = database;
    this.#models = models;
  }

  list(): Promise<BotSummary[]> {
    return listBots(this.#database);
  }

  /** @throws NoSuchBotError */
  async get(id: number): Promise<StoredBot> {
    const known = this.#bots.get(id);
    if (known) return known;
    return this.#inTurn(id, () => this.#load(id));
  }

  create(document: BotDocument): Promise<number> {
    return createBot(this.#database, document, new Date().toISOString());
  }

  /** Makes a copy with its test sets and walkthroughs. @returns the number of the copy */
  async duplicate(id: number): Promise<number> {
    const { document } = await this.get(id);
    const names = (await this.list()).map((bot) => bot.name);
    let name = `${document.name} (copy)`;
    for (let count = 2; names.includes(name); count++) name = `${document.name} (copy ${count})`;
    const copy = await this.create({ ...document, name });
    for (const set of await listTestSets(this.#database, id)) {
      const lines = (await readTestLines(this.#database, id, set.id)) ?? [];
      await createTestSet(this.#database, copy, set.name, lines, now());
    }
    const walkthroughs = (await listWalkthroughs(this.#database, id)).map(({ walkthrough }) => walkthrough);
    await addWalkthroughs(this.#database, copy, walkthroughs);
    return copy;
  }

  delete(id: number): Promise<void> {
    return this.#inTurn(id, async () => {
      await setDeleted(this.#database, id, new Date().toISOString());
      this.#bots.delete(id);
      this.#models.forget(id);
    });
  }

  restore(id: number): Promise<void> {
    return this.#inTurn(id, () => setDeleted(this.#database, id, null));
  }

  /** Does one act and keeps it. @throws EditError, NoSuchBotError */
  edit(id: number, edit: Edit): Promise<StoredBot> {
    return this.#inTurn(id, async () => {
      const bot = await this.#load(id);
      const { document, label } = applyEdit(bot.document, edit);
      const renaming = renamingOf(bot.document, edit);
      return this.#keep(await saveAct(this.#database, bot, document, { label, at: now(), renaming }));
    });
  }

  /** Keeps a test set that was brought in. @returns its number */
  addTestSet(id: number, name: string, lines: readonly TestLine[]): Promise<number> {
    return this.#inTurn(id, async () => {
      await this.#load(id);
      const set = await createTestSet(this.#database, id, name, lines, now());
      await this.#show(id, { part: 'test_set', ids: [set], hidden: false }, `add the test set ${name}`);
      return set;
    });
  }

  /** Deletes a test set; undo brings it back with its runs. @returns whether there was one */
  deleteTestSet(id: number, set: number): Promise<boolean> {
    return this.#inTurn(id, async () => {
      await this.#load(id);
      const found = (await listTestSets(this.#database, id)).find((item) => item.id === set);
      if (found)
        await this.#show(id, { part: 'test_set', ids: [set], hidden: true }, `delete the test set ${found.name}`);
      return found !== undefined;
    });
  }

  /** Adds a line to a test set. @returns whether there is one @throws EditError for an intent that is not there */
  addTestLine(id: number, set: number, line: TestLine): Promise<boolean> {
    return this.#inTurn(id, async () => {
      const { document } = await this.#load(id);
      if (typeof line.intent === 'string') named(document.intents, line.intent, 'intent');
      if (!(await readTestLines(this.#database, id, set))) return false;
      const position = await addTestLine(this.#database, set, line);
      const shown: Shown = { part: 'test_line', ids: [position], testSet: set, hidden: false };
      await this.#show(id, shown, `add “${line.text.slice(0, 60)}” to a test set`);
      return true;
    });
  }

  addWalkthroughs(id: number, walkthroughs: readonly Walkthrough[]): Promise<void> {
    return this.#inTurn(id, async () => {
      await this.#load(id);
      const ids = await addWalkthroughs(this.#database, id, walkthroughs);
      await this.#show(id, { part: 'walkthrough', ids, hidden: false }, `add ${count(ids.length, 'walkthrough')}`);
    });
  }

  /** Deletes a walkthrough; undo brings it back. @returns whether there was one */
  deleteWalkthrough(id: number, walkthrough: number): Promise<boolean> {
    return this.#inTurn(id, async () => {
      await this.#load(id);
      const found = (await listWalkthroughs(this.#database, id)).find((item) => item.id === walkthrough);
      if (!found) return false;
      const label = `delete the walkthrough ${found.walkthrough.name}`;
      await this.#show(id, { part: 'walkthrough', ids: [walkthrough], hidden: true }, label);
      return true;
    });
  }

  /** Deletes a conversation; undo brings it back. @returns whether there was one */
  deleteConversation(id: number, conversation: number): Promise<boolean> {
    return this.#inTurn(id, async () => {
      await this.#load(id);
      if (!(await readConversation(this.#database, id, conversation))) return false;
      const label = `delete conversation ${conversation}`;
      await this.#show(id, { part: 'conversation', ids: [conversation], hidden: true }, label);
      return true;
    });
  }

  async #show(id: number, shown: Shown, label: string): Promise<void> {
    await saveShown(this.#database, id, shown, label, now());
    if (shown.part === 'walkthrough') this.#models.rerunWalkthroughs(id);
  }

  /** @returns the bot and what was undone or done again; `null` if there was nothing */
  step(id: number, direction: 'undo' | 'redo'): Promise<{ bot: StoredBot; label: string } | null> {
    return this.#inTurn(id, async () => {
      const bot = await this.#load(id);
      const result = await stepHistory(this.#database, bot, direction, now());
      // Where the document is the same, a walkthrough may have come back or gone.
      if (result?.bot === bot) this.#models.rerunWalkthroughs(id);
      else if (result) this.#keep(result.bot);
      return result;
    });
  }

  history(id: number): Promise<HistoryState> {
    return historyState(this.#database, id);
  }

  async #load(id: number): Promise<StoredBot> {
    const known = this.#bots.get(id);
    if (known) return known;
    const bot = await loadBot(this.#database, id);
    this.#bots.set(id, bot);
    await this.#models.follow(bot);
    return bot;
  }

  #keep(bot: StoredBot): StoredBot {
    this.#bots.set(bot.id, bot);
    void this.#models.follow(bot);
    return bot;
  }

  /** Runs what concerns one bot in the order it was asked for. */
  #inTurn<T>(id: number, work: () => Promise<T>): Promise<T> {
    const before = this.#queues.get(id) ?? Promise.resolve();
    const next = before.then(work, work);
    this.#queues.set(
      id,
      next.catch(() => undefined),
    );
    return next;
  }
}
