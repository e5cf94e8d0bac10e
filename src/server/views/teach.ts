import { isOffered, proposedName } from '../../core/bot/customersName.js';
import { BUILT_IN_KINDS, entitiesInUse, findForm, type Utterance } from '../../core/bot/document.js';
import { intentNotes, unknownValues } from '../../core/bot/notes.js';
import { writeMarking } from '../../core/bot/marking.js';
import type { Decision } from '../../core/recognise/gate.js';
import type { EntitiesView, HeldOutMark, TeachView } from '../../core/contract/teach.js';
import type { Application } from '../application.js';

export async function teachView(app: Application, botId: number, wanted: string | null): Promise<TeachView> {
  const bot = await app.bots.get(botId);
  const { document } = bot;
  const model = await app.models.model(bot);
  const heldOut = await app.models.predictions(bot);
  const recalls = new Map(model?.heldOut.intents.map((measure) => [measure.intent, measure.recall]));
  const recallOf = (name: string) => recalls.get(name) ?? null;
  const intent = document.intents.find((candidate) => candidate.name === wanted) ?? document.intents[0];
  const predictions = new Map(
    heldOut.filter((item) => item.intent === intent?.name).map((item) => [item.utterance, item]),
  );
  const { gate } = document;
  const markOf = ({ id, text }: Utterance): HeldOutMark | null => {
    const prediction = predictions.get(id);
    // One that was changed since is not the one that was measured.
    if (prediction?.text !== text) return null;
    const right = prediction.predicted === prediction.intent;
    const decision: Decision =
      right && prediction.ownConfidence >= gate.accept
        ? 'accept'
        : prediction.ownConfidence >= gate.ask
          ? 'ask'
          : 'none';
    return { predicted: prediction.predicted, confidence: prediction.ownConfidence, decision };
  };
  const slots = findForm(document, intent?.form)?.slots.map((slot) => slot.name) ?? [];
  return {
    intents: document.intents.map(({ name, utterances }) => ({
      name,
      utterances: utterances.length,
      recall: recallOf(name),
    })),
    heldOut: model?.heldOut.interval ?? null,
    forms: document.forms.map((form) => form.name),
    desks: document.desks.map((desk) => desk.name),
    language: document.languages[0] ?? 'en',
    current: intent
      ? {
          name: intent.name,
          description: intent.description ?? '',
          form: intent.form ?? null,
          reply: intent.reply ?? null,
          desk: intent.desk ?? null,
          rows: intent.utterances.map((utterance) => ({
            ...utterance,
            source: writeMarking(utterance),
            heldOut: markOf(utterance),
          })),
          notes: intentNotes(document, intent, heldOut, model?.unread),
          unknown: unknownValues(document, intent),
          markable: slots.length > 0 ? slots : entitiesInUse(document).map((entity) => entity.name),
          known: [...slots, ...entitiesInUse(document).map((entity) => entity.name), ...BUILT_IN_KINDS],
          called: intent.called ?? null,
          proposed: proposedName(intent.name),
          offered: isOffered(intent),
          recall: recallOf(intent.name),
        }
      : null,
  };
}

export async function entitiesView(app: Application, botId: number, wanted: string | null): Promise<EntitiesView> {
  const { document } = await app.bots.get(botId);
  const current = document.entities.find((entity) => entity.name === wanted) ?? document.entities[0] ?? null;
  return {
    entities: document.entities.map(({ name, kind, values }) => ({ name, kind, values: values?.length ?? null })),
    current,
    usedBy: document.forms
      .filter((form) => form.slots.some((slot) => slot.entity === current?.name))
      .map((form) => form.name),
  };
}
