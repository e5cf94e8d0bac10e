import { BUILT_IN_KINDS } from '../../core/bot/document.js';
import type { SayView } from '../../core/contract/say.js';
import { formNotes, incompleteForms } from '../../core/bot/notes.js';
import { readThrough } from '../../core/converse/readThrough.js';
import type { Application } from '../application.js';
import { localNow } from '../time.js';
import { openModelOf } from './bot.js';

export async function sayView(app: Application, botId: number, wanted: string | null): Promise<SayView> {
  const bot = await app.bots.get(botId);
  const { document } = bot;
  const incomplete = incompleteForms(document);
  const form = document.forms.find((candidate) => candidate.name === wanted) ?? document.forms[0];
  const intents = form
    ? document.intents.filter((intent) => intent.form === form.name).map((intent) => intent.name)
    : [];
  const open = await openModelOf(app, bot);
  const known = open?.recogniser.document.forms.find((candidate) => candidate.name === form?.name);
  const opener = intents.find((name) =>
    open?.recogniser.document.intents.some((intent) => intent.name === name && intent.form === form?.name),
  );
  return {
    forms: document.forms.map(({ name, slots }) => ({ name, slots: slots.length, missing: incomplete.includes(name) })),
    current: form
      ? {
          form,
          notes: formNotes(document, form),
          intents,
          readThrough:
            open && known && opener ? readThrough(open.recogniser, opener, known, localNow(document.timeZone)) : null,
          stale: (await app.models.stateOf(bot)).state !== 'current',
        }
      : null,
    entities: [
      ...document.entities.map((entity) => entity.name),
      ...BUILT_IN_KINDS.filter((kind) => !document.entities.some((entity) => entity.name === kind)),
    ],
    intents: document.intents.map((intent) => intent.name),
    desks: document.desks,
    noMatch: document.noMatch,
    greeting: document.greeting,
    language: document.languages[0] ?? 'en',
  };
}
