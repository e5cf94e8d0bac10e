import { BUILT_IN_KINDS, findEntity, type BotDocument, type Entity } from '../../core/bot/document.js';
import { insertsForForm } from '../../core/bot/inserts.js';
import { botNotes, formNotes, sayGaps } from '../../core/notes/index.js';
import type { SayList, SayView, TextsView } from '../../core/contract/say.js';
import { variants } from '../../core/bot/localised.js';
import { TEXT_NAMES, type TextName } from '../../core/say/engineTexts.js';
import { defaultText } from '../../core/say/texts.js';
import type { Application } from '../application.js';

function sayList(document: BotDocument): SayList {
  const gaps = sayGaps(document);
  return {
    forms: document.forms.map(({ name, slots }) => ({
      name,
      slots: slots.length,
      missing: gaps?.forms.includes(name) ?? false,
    })),
    unanswered: gaps?.intents ?? [],
    textsMissing: gaps?.texts ?? 0,
  };
}

/** Values of a list that conditions offer; a longer one is typed. */
const MOST_OFFERED = 200;

/** An entity with what a condition offers of it. */
const shortened = (entity: Entity): Entity =>
  entity.values === undefined
    ? entity
    : {
        ...entity,
        values: entity.values.length > MOST_OFFERED ? [] : entity.values.map((value) => ({ ...value, synonyms: [] })),
      };

export async function sayView(app: Application, botId: number, wanted: string | null): Promise<SayView> {
  const bot = await app.bots.get(botId);
  const { document } = bot;
  const form = document.forms.find((candidate) => candidate.name === wanted) ?? document.forms[0];
  const intents = form
    ? document.intents.filter((intent) => intent.form === form.name).map((intent) => intent.name)
    : [];
  const used = new Set(form?.slots.map(({ entity }) => entity));
  return {
    ...sayList(document),
    current: form
      ? {
          form,
          notes: formNotes(document, form),
          intents,
          inserts: insertsForForm(document, form),
          readThrough: await app.models.readThrough(bot, form.name),
          stale: (await app.models.stateOf(bot)).state !== 'current',
        }
      : null,
    entities: [
      ...document.entities.map((entity) => entity.name),
      ...BUILT_IN_KINDS.filter((kind) => !document.entities.some((entity) => entity.name === kind)),
    ],
    lists: [...used].flatMap((name) => findEntity(document, name) ?? []).map(shortened),
    intents: document.intents.map((intent) => intent.name),
    desks: document.desks.map(({ name }) => name),
    language: document.languages[0] ?? 'en',
  };
}

/** What the bot says where it has no words of its own. */
const defaultsIn = (language: string) =>
  Object.fromEntries(TEXT_NAMES.map((name) => [name, variants(defaultText(name), language).join(' / ')])) as Record<
    TextName,
    string
  >;

export async function textsView(app: Application, botId: number): Promise<TextsView> {
  const { document } = await app.bots.get(botId);
  const language = document.languages[0] ?? 'en';
  return {
    ...sayList(document),
    texts: document.texts,
    defaults: defaultsIn(language),
    noMatch: document.noMatch,
    greeting: document.greeting,
    allDesks: document.desks,
    notes: botNotes(document),
    language,
  };
}
