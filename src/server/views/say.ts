import { BUILT_IN_KINDS, findEntity, type BotDocument } from '../../core/bot/document.js';
import { insertsForForm } from '../../core/bot/inserts.js';
import { formNotes, sayGaps } from '../../core/bot/notes.js';
import { botTextNotes } from '../../core/bot/textNotes.js';
import type { SayList, SayView, TextsView } from '../../core/contract/say.js';
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
    textsMissing: gaps?.texts.length ?? 0,
  };
}

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
    lists: [...used].flatMap((name) => findEntity(document, name) ?? []),
    intents: document.intents.map((intent) => intent.name),
    desks: document.desks.map(({ name }) => name),
    language: document.languages[0] ?? 'en',
  };
}

export async function textsView(app: Application, botId: number): Promise<TextsView> {
  const { document } = await app.bots.get(botId);
  return {
    ...sayList(document),
    texts: document.texts,
    noMatch: document.noMatch,
    greeting: document.greeting,
    allDesks: document.desks,
    notes: botTextNotes(document),
    language: document.languages[0] ?? 'en',
  };
}
