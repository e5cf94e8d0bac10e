import type { Kysely } from 'kysely';
import type { ConversationSummary, PersonSaid, Said, StoredConversation, TurnTaken } from '../../core/contract/try.js';
import { chooseVariant } from '../../core/say/render.js';
import { startConversation, type ConversationState } from '../../core/converse/state.js';
import type { Context } from '../context.js';
import type { Database } from '../database/schema.js';
import { InputError } from '../errors.js';
import type { StoredBot } from '../repositories/bots.js';
import {
  addTurn,
  changeConversation,
  clearConversations,
  createConversation,
  hasConversation,
  listConversations,
  readConversation,
  takeBackTurns,
  takeReference,
  turnSentAs,
} from '../repositories/conversations.js';
import { localNow } from '../time.js';
import type { ModelService } from './models.js';
import { Turns } from './turns.js';

/** Turns of a conversation that a screen is given; earlier ones are asked for. */
const TURNS_SHOWN = 60;
/** The most turns that a conversation has. */
const MOST_TURNS = 5000;
/** Conversations of a person that are there at once; of more, the oldest that are not kept go. */
const MOST_CONVERSATIONS = 200;

/** Conversations with a bot as it stands. Each belongs to the person who began it. */
export class ConversationService {
  readonly #database: Kysely<Database>;
  readonly #models: ModelService;
  readonly #turns = new Turns<number>();

  constructor(database: Kysely<Database>, models: ModelService) {
    this.#database = database;
    this.#models = models;
  }

  list({ actor }: Context, bot: StoredBot): Promise<ConversationSummary[]> {
    return listConversations(this.#database, bot.id, actor.id, MOST_CONVERSATIONS);
  }

  /**
   * A conversation of the actor, or `null`; the latest where no number is given.
   * @param all whether it comes with all of its turns; otherwise with the last of them
   */
  get(
    { actor }: Context,
    bot: StoredBot,
    id?: number,
    { all = false }: { all?: boolean } = {},
  ): Promise<StoredConversation | null> {
    const last = all ? MOST_TURNS : TURNS_SHOWN;
    return readConversation(this.#database, bot.id, { person: actor.id, id }, { last });
  }

  async start(context: Context, bot: StoredBot): Promise<StoredConversation> {
    const greeting = chooseVariant(bot.document.greeting, bot.document.languages[0] ?? 'en', 0);
    const state: ConversationState = {
      ...startConversation(await takeReference(this.#database, bot.id)),
      lastSaid: greeting === null ? [] : [{ text: greeting }],
    };
    const conversation = { person: context.actor.id, startedAt: context.now(), state };
    const id = await createConversation(this.#database, bot.id, conversation);
    await clearConversations(this.#database, bot.id, context.actor.id, MOST_CONVERSATIONS);
    return (await this.get(context, bot, id))!;
  }

  /** Gives a conversation a name or has it kept. @returns whether there is such a conversation */
  async change(
    { actor }: Context,
    bot: StoredBot,
    id: number,
    change: { name?: string | null | undefined; kept?: boolean | undefined },
  ): Promise<boolean> {
    if (!(await hasConversation(this.#database, bot.id, actor.id, id))) return false;
    const name = change.name?.trim();
    await changeConversation(this.#database, id, { ...change, ...(name === undefined ? {} : { name: name || null }) });
    return true;
  }

  /**
   * Takes a conversation one turn further and keeps it; turns of one conversation are taken one after another.
   * `null` if there is no such conversation.
   * @param sent what was said, with the sender's own number for the turn: one that is sent again is not taken again
   */
  say(
    context: Context,
    bot: StoredBot,
    id: number,
    sent: { said: PersonSaid; clientId: string | null },
  ): Promise<TurnTaken | null> {
    return this.#turns.take(id, () => this.#say(context, bot, id, sent));
  }

  async #say(
    context: Context,
    bot: StoredBot,
    id: number,
    { said, clientId }: { said: PersonSaid; clientId: string | null },
  ): Promise<TurnTaken | null> {
    const of = { person: context.actor.id, id };
    const conversation = await readConversation(this.#database, bot.id, of, { last: 1 });
    if (!conversation) return null;
    const position = (conversation.turns.at(-1)?.position ?? -1) + 1;
    if (position >= MOST_TURNS) throw new InputError(`A conversation has at most ${MOST_TURNS} turns. Start anew.`);
    const known = clientId === null ? null : await turnSentAs(this.#database, id, clientId);
    if (known) return { turn: known, state: conversation.state };
    const now = localNow(bot.document.timeZone);
    const { result, revision } = await this.#models.converse(bot, conversation.state, said, now);
    // A number is given once: a conversation that has used its own gets the next.
    const used = result.acts.some(({ act }) => act === 'complete');
    const after = used ? { ...result.state, reference: await takeReference(this.#database, bot.id) } : result.state;
    const kept: Said = said.type === 'text' ? { ...said, now } : said;
    const turn = {
      position,
      said: kept,
      says: result.says,
      acts: result.acts,
      trace: result.trace,
      revision,
    };
    await addTurn(this.#database, id, turn, { before: conversation.state, after, clientId });
    return { turn, state: after };
  }

  /** Goes back to before a turn. @returns whether there is such a conversation */
  takeBack({ actor }: Context, bot: StoredBot, id: number, from: number): Promise<boolean> {
    return this.#turns.take(id, async () => {
      if (!(await hasConversation(this.#database, bot.id, actor.id, id))) return false;
      await takeBackTurns(this.#database, id, from);
      return true;
    });
  }
}
