import type { Kysely } from 'kysely';
import type { BotDocument } from '../../core/bot/document.js';
import type { BotSummary, HistoryState } from '../../core/contract/bot.js';
import { applyEdit, type Edit } from '../../core/bot/edit.js';
import type { Database } from '../database/schema.js';
import {
  createBot,
  historyState,
  listBots,
  loadBot,
  saveAct,
  setDeleted,
  stepHistory,
  type StoredBot,
} from '../repositories/bots.js';
import type { ModelService } from './models.js';

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

  /** @returns the number of the copy */
  async duplicate(id: number): Promise<number> {
    const { document } = await this.get(id);
    const names = (await this.list()).map((bot) => bot.name);
    let name = `${document.name} (copy)`;
    for (let count = 2; names.includes(name); count++) name = `${document.name} (copy ${count})`;
    return this.create({ ...document, name });
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
      return this.#keep(await saveAct(this.#database, bot, document, label, new Date().toISOString()));
    });
  }

  /** @returns the bot and what was undone or done again; `null` if there was nothing */
  step(id: number, direction: 'undo' | 'redo'): Promise<{ bot: StoredBot; label: string } | null> {
    return this.#inTurn(id, async () => {
      const result = await stepHistory(this.#database, await this.#load(id), direction, new Date().toISOString());
      if (result) this.#keep(result.bot);
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
