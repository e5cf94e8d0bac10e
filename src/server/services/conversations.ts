import type { Kysely } from 'kysely';
import type { PersonSaid, Said, StoredConversation } from '../../core/contract/try.js';
import { chooseVariant } from '../../core/say/render.js';
import { startConversation, type ConversationEvent, type ConversationState } from '../../core/converse/state.js';
import { step } from '../../core/converse/step.js';
import type { Database } from '../database/schema.js';
import type { StoredBot } from '../repositories/bots.js';
import { addTurn, createConversation, readConversation, takeBackTurns } from '../repositories/conversations.js';
import { localNow } from '../time.js';
import type { ModelService } from './models.js';

/** Order numbers of trial conversations count from here. */
const FIRST_REFERENCE = 40000;

/** Conversations with a bot as it stands. */
export class ConversationService {
  readonly #database: Kysely<Database>;
  readonly #models: ModelService;

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
    const last = await readConversation(this.#database, bot.id);
    const greeting = chooseVariant(bot.document.greeting, bot.document.languages[0] ?? 'en', 0);
    const state: ConversationState = {
      ...startConversation(String(FIRST_REFERENCE + (last?.id ?? 0) + 1)),
      lastSaid: greeting === null ? [] : [{ text: greeting }],
    };
    const id = await createConversation(this.#database, bot.id, new Date().toISOString(), state);
    return (await readConversation(this.#database, bot.id, id))!;
  }

  /** Takes a conversation one turn further and keeps it. `null` if there is no such conversation. */
  async say(bot: StoredBot, id: number, said: PersonSaid): Promise<StoredConversation | null> {
    const conversation = await readConversation(this.#database, bot.id, id);
    if (!conversation) return null;
    const model = await this.#models.answering(bot);
    const now = localNow(bot.document.timeZone);
    const event: ConversationEvent =
      said.type === 'text' ? { ...said, now, vectors: await this.#models.vectorsForTurn(model, said.text) } : said;
    const kept: Said = said.type === 'text' ? { ...said, now } : said;
    const result = step(model.recogniser, conversation.state, event);
    await addTurn(
      this.#database,
      id,
      {
        position: (conversation.turns.at(-1)?.position ?? -1) + 1,
        said: kept,
        says: result.says,
        acts: result.acts,
        trace: result.trace,
        revision: model.revision,
      },
      conversation.state,
      result.state,
    );
    return readConversation(this.#database, bot.id, id);
  }

  /** Goes back to before a turn. `null` if there is no such conversation. */
  async takeBack(bot: StoredBot, id: number, from: number): Promise<StoredConversation | null> {
    if (!(await readConversation(this.#database, bot.id, id))) return null;
    await takeBackTurns(this.#database, id, from);
    return readConversation(this.#database, bot.id, id);
  }
}
