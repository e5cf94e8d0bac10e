import type { Kysely } from 'kysely';
import type { PersonSaid, Said, StoredConversation } from '../../core/contract/try.js';
import { chooseVariant } from '../../core/say/render.js';
import { startConversation, type ConversationEvent, type ConversationState } from '../../core/converse/state.js';
import { step } from '../../core/converse/step.js';
import type { Database } from '../database/schema.js';
import type { StoredBot } from '../repositories/bots.js';
import {
  addTurn,
  createConversation,
  hasTurn,
  readConversation,
  takeBackTurns,
  takeReference,
} from '../repositories/conversations.js';
import { localNow } from '../time.js';
import type { ModelService } from './models.js';

/** Conversations with a bot as it stands. */
export class ConversationService {
  readonly #database: Kysely<Database>;
  readonly #models: ModelService;
  /** The turns of each conversation that are being taken. */
  readonly #queues = new Map<number, Promise<unknown>>();

  constructor(database: Kysely<Database>, models: ModelService) {
    this.#database = database;
    this.#models = models;
  }

  latest(bot: StoredBot): Promise<StoredConversation | null> {
    return readConversation(this.#database, bot.id);
  }

  get(bot: StoredBot, id: number): Promise<StoredConversation | null> {
    return readConversation(this.#database, bot.id, id);
  }

  async start(bot: StoredBot): Promise<StoredConversation> {
    const greeting = chooseVariant(bot.document.greeting, bot.document.languages[0] ?? 'en', 0);
    const state: ConversationState = {
      ...startConversation(await takeReference(this.#database, bot.id)),
      lastSaid: greeting === null ? [] : [{ text: greeting }],
    };
    const id = await createConversation(this.#database, bot.id, new Date().toISOString(), state);
    return (await readConversation(this.#database, bot.id, id))!;
  }

  /**
   * Takes a conversation one turn further and keeps it; turns of one conversation are taken one after another.
   * `null` if there is no such conversation.
   * @param clientId the sender's own number for the turn: one that is sent again is answered and not taken again
   */
  say(
    bot: StoredBot,
    id: number,
    said: PersonSaid,
    clientId: string | null = null,
  ): Promise<StoredConversation | null> {
    return this.#inTurn(id, () => this.#say(bot, id, said, clientId));
  }

  async #say(
    bot: StoredBot,
    id: number,
    said: PersonSaid,
    clientId: string | null,
  ): Promise<StoredConversation | null> {
    const conversation = await readConversation(this.#database, bot.id, id);
    if (!conversation) return null;
    if (clientId !== null && (await hasTurn(this.#database, id, clientId))) return conversation;
    const model = await this.#models.answering(bot);
    const now = localNow(bot.document.timeZone);
    const event: ConversationEvent =
      said.type === 'text' ? { ...said, now, vectors: await this.#models.vectorsForTurn(model, said.text) } : said;
    const kept: Said = said.type === 'text' ? { ...said, now } : said;
    const result = step(model.recogniser, conversation.state, event);
    // A number is given once: a conversation that has used its own gets the next.
    const used = result.acts.some(({ act }) => act === 'complete');
    const after = used ? { ...result.state, reference: await takeReference(this.#database, bot.id) } : result.state;
    const turn = {
      position: (conversation.turns.at(-1)?.position ?? -1) + 1,
      said: kept,
      says: result.says,
      acts: result.acts,
      trace: result.trace,
      revision: model.revision,
    };
    await addTurn(this.#database, id, turn, { before: conversation.state, after, clientId });
    return readConversation(this.#database, bot.id, id);
  }

  /** Runs what concerns one conversation in the order it was asked for. */
  #inTurn<T>(id: number, work: () => Promise<T>): Promise<T> {
    const next = (this.#queues.get(id) ?? Promise.resolve()).then(work, work);
    const settled = next.then(
      () => undefined,
      () => undefined,
    );
    this.#queues.set(id, settled);
    void settled.then(() => {
      if (this.#queues.get(id) === settled) this.#queues.delete(id);
    });
    return next;
  }

  /** Goes back to before a turn. `null` if there is no such conversation. */
  takeBack(bot: StoredBot, id: number, from: number): Promise<StoredConversation | null> {
    return this.#inTurn(id, () => this.#takeBack(bot, id, from));
  }

  async #takeBack(bot: StoredBot, id: number, from: number): Promise<StoredConversation | null> {
    if (!(await readConversation(this.#database, bot.id, id))) return null;
    await takeBackTurns(this.#database, id, from);
    return readConversation(this.#database, bot.id, id);
  }
}
