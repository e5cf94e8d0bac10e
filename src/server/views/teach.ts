import { isOffered, proposedName } from '../../core/bot/customersName.js';
import { languageOf } from '../../core/language/index.js';
import {
  BUILT_IN_KINDS,
  entitiesInUse,
  findForm,
  type Entity,
  type Intent,
  type ListValue,
  type RowId,
  type Utterance,
} from '../../core/bot/document.js';
import { intentNotes } from '../../core/notes/index.js';
import { writeMarking } from '../../core/bot/marking.js';
import type { HeldOutPrediction } from '../../core/recognise/intentModel.js';
import { acceptLevel, gateOf, type Decision, type Gate } from '../../core/recognise/gate.js';
import {
  UTTERANCES_PAGE,
  VALUES_PAGE,
  type EntitiesView,
  type EntitySheet,
  type HeldOutMark,
  type TeachView,
  type UtteranceLine,
} from '../../core/contract/teach.js';
import { inSlices } from '../slices.js';
import type { Application } from '../application.js';

/** The lines of some utterances of an intent, each with how it fares when held out. */
function linesOf(
  intent: Intent,
  utterances: readonly Utterance[],
  heldOut: readonly HeldOutPrediction[],
  gate: Gate,
): UtteranceLine[] {
  const wanted = new Set(utterances.map(({ id }) => id));
  const predictions = new Map(
    heldOut
      .filter((item) => item.intent === intent.name && wanted.has(item.utterance))
      .map((item) => [item.utterance, item]),
  );
  const markOf = ({ id, text }: Utterance): HeldOutMark | null => {
    const prediction = predictions.get(id);
    // One that was changed since is not the one that was measured.
    if (prediction?.text !== text) return null;
    const right = prediction.predicted === prediction.intent;
    const decision: Decision =
      right && prediction.ownConfidence >= acceptLevel(intent.name, gate)
        ? 'accept'
        : prediction.ownConfidence >= gate.ask
          ? 'ask'
          : 'none';
    return { predicted: prediction.predicted, confidence: prediction.ownConfidence, decision };
  };
  return utterances.map((utterance) => ({
    ...utterance,
    source: writeMarking(utterance),
    heldOut: markOf(utterance),
  }));
}

/** What is sent of the rows of a sheet: the ids of all, and the page of the row that is wanted, else the first. */
function partOf<Row extends { id: RowId }>(rows: readonly Row[], wanted: RowId | null, size: number) {
  const place =
    wanted === null
      ? 0
      : Math.max(
          0,
          rows.findIndex(({ id }) => id === wanted),
        );
  const from = Math.floor(place / size) * size;
  return { count: rows.length, ids: rows.map(({ id }) => id).join(' '), page: rows.slice(from, from + size) };
}

/** A page of the utterances of an intent; none where there is no such intent. */
export async function utterancesPage(
  app: Application,
  botId: number,
  name: string,
  from: number,
): Promise<UtteranceLine[]> {
  const bot = await app.bots.get(botId);
  const intent = bot.document.intents.find((candidate) => candidate.name === name);
  if (!intent) return [];
  const heldOut = await app.models.predictions(bot);
  return linesOf(intent, intent.utterances.slice(from, from + UTTERANCES_PAGE), heldOut, gateOf(bot.document));
}

/** @param wanted the intent that is to be open, and the utterance whose page is wanted */
export async function teachView(
  app: Application,
  botId: number,
  wanted: { intent: string | null; row: string | null },
): Promise<TeachView> {
  const bot = await app.bots.get(botId);
  const { document } = bot;
  const model = await app.models.model(bot);
  const heldOut = await app.models.predictions(bot);
  const recalls = new Map(model?.heldOut.intents.map((measure) => [measure.intent, measure.recall]));
  const recallOf = (name: string) => recalls.get(name) ?? null;
  const intent = document.intents.find((candidate) => candidate.name === wanted.intent) ?? document.intents[0];
  const part = partOf(intent?.utterances ?? [], wanted.row, UTTERANCES_PAGE);
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
          ...part,
          page: linesOf(intent, part.page, heldOut, gateOf(document)),
          notes: await inSlices(intentNotes(document, intent, heldOut, model?.unread)),
          markable: slots.length > 0 ? slots : entitiesInUse(document).map((entity) => entity.name),
          known: [...slots, ...entitiesInUse(document).map((entity) => entity.name), ...BUILT_IN_KINDS],
          called: intent.called ?? null,
          proposed: proposedName(intent.name, languageOf(document)),
          offered: isOffered(intent, languageOf(document)),
          recall: recallOf(intent.name),
        }
      : null,
  };
}

const entitySheet = ({ values = [], ...entity }: Entity, wanted: RowId | null): EntitySheet => ({
  ...entity,
  ...partOf(values, wanted, VALUES_PAGE),
});

/** @param wanted the entity that is to be open, and the value whose page is wanted */
export async function entitiesView(
  app: Application,
  botId: number,
  wanted: { entity: string | null; row: string | null },
): Promise<EntitiesView> {
  const { document } = await app.bots.get(botId);
  const current = document.entities.find(({ name }) => name === wanted.entity) ?? document.entities[0] ?? null;
  return {
    entities: document.entities.map(({ name, kind, values }) => ({ name, kind, values: values?.length ?? null })),
    current: current && entitySheet(current, wanted.row),
    usedBy: document.forms
      .filter((form) => form.slots.some((slot) => slot.entity === current?.name))
      .map((form) => form.name),
  };
}

/** A page of the values of an entity; none where there is no such entity. */
export async function valuesPage(app: Application, botId: number, entity: string, from: number): Promise<ListValue[]> {
  const { document } = await app.bots.get(botId);
  const values = document.entities.find(({ name }) => name === entity)?.values ?? [];
  return values.slice(from, from + VALUES_PAGE);
}
