import type { Transaction } from 'kysely';
import type {
  BotDocument,
  Desk,
  Entity,
  EntityKind,
  Form,
  Intent,
  JsonLogicRule,
  Localised,
  NoMatchSettings,
  Slot,
} from '../../core/bot/document.js';
import { readMarking, writeMarking } from '../../core/bot/marking.js';
import type { BotTexts } from '../../core/say/texts.js';
import type { Database } from '../database/schema.js';

type Connection = Transaction<Database>;

/** Rows written in one statement; SQLite takes 32,766 values in one. */
const BATCH = 1000;

const optionalJson = (value: unknown): string | null => (value === undefined ? null : JSON.stringify(value));

/** Takes away the parts that are `null` or `undefined`. */
function present<T extends object>(value: { [K in keyof T]: T[K] | null | undefined }): T {
  return Object.fromEntries(Object.entries(value).filter(([, part]) => part !== null && part !== undefined)) as T;
}

const localised = (json: string | null): Localised | undefined =>
  json === null ? undefined : (JSON.parse(json) as Localised);

function groupBy<T, K>(rows: readonly T[], key: (row: T) => K): Map<K, T[]> {
  const groups = new Map<K, T[]>();
  for (const row of rows) {
    const group = groups.get(key(row));
    if (group) group.push(row);
    else groups.set(key(row), [row]);
  }
  return groups;
}

async function readEntities(db: Connection, botId: number): Promise<Entity[]> {
  const entities = await db.selectFrom('entity').selectAll().where('bot_id', '=', botId).orderBy('position').execute();
  const values = await db
    .selectFrom('entity_value')
    .innerJoin('entity', 'entity.id', 'entity_value.entity_id')
    .select(['entity_value.id', 'entity_value.entity_id', 'entity_value.value'])
    .where('entity.bot_id', '=', botId)
    .orderBy('entity_value.position')
    .execute();
  const synonyms = await db
    .selectFrom('synonym')
    .innerJoin('entity_value', 'entity_value.id', 'synonym.value_id')
    .innerJoin('entity', 'entity.id', 'entity_value.entity_id')
    .select(['synonym.value_id', 'synonym.text'])
    .where('entity.bot_id', '=', botId)
    .orderBy('synonym.position')
    .execute();
  const synonymsOf = groupBy(synonyms, (row) => row.value_id);
  const valuesOf = groupBy(values, (row) => row.entity_id);
  return entities.map(({ id, name, kind, misspellings, pattern }) =>
    present<Entity>({
      name,
      kind: kind as EntityKind,
      misspellings: misspellings === null ? null : misspellings === 1,
      values:
        kind !== 'list'
          ? null
          : (valuesOf.get(id) ?? []).map((row) => ({
              value: row.value,
              synonyms: (synonymsOf.get(row.id) ?? []).map((synonym) => synonym.text),
            })),
      pattern,
    }),
  );
}

async function readIntents(db: Connection, botId: number): Promise<Intent[]> {
  const intents = await db.selectFrom('intent').selectAll().where('bot_id', '=', botId).orderBy('position').execute();
  const utterances = await db
    .selectFrom('utterance')
    .innerJoin('intent', 'intent.id', 'utterance.intent_id')
    .select(['utterance.id', 'utterance.intent_id', 'utterance.text'])
    .where('intent.bot_id', '=', botId)
    .orderBy('utterance.position')
    .execute();
  const marks = await db
    .selectFrom('mark')
    .innerJoin('utterance', 'utterance.id', 'mark.utterance_id')
    .innerJoin('intent', 'intent.id', 'utterance.intent_id')
    .select(['mark.utterance_id', 'mark.slot', 'mark.start', 'mark.end'])
    .where('intent.bot_id', '=', botId)
    .execute();
  const marksOf = groupBy(marks, (row) => row.utterance_id);
  const utterancesOf = groupBy(utterances, (row) => row.intent_id);
  return intents.map(({ id, name, description, called, offered, form, reply, desk }) =>
    present<Intent>({
      name,
      description,
      called: localised(called),
      offered: offered === null ? null : offered === 1,
      form,
      reply: localised(reply),
      desk,
      utterances: (utterancesOf.get(id) ?? []).map((row) =>
        writeMarking({ text: row.text, marks: marksOf.get(row.id) ?? [] }),
      ),
    }),
  );
}

async function readForms(db: Connection, botId: number): Promise<Form[]> {
  const forms = await db.selectFrom('form').selectAll().where('bot_id', '=', botId).orderBy('position').execute();
  const slots = await db
    .selectFrom('slot')
    .innerJoin('form', 'form.id', 'slot.form_id')
    .selectAll('slot')
    .where('form.bot_id', '=', botId)
    .orderBy('slot.position')
    .execute();
  const slotsOf = groupBy(slots, (row) => row.form_id);
  return forms.map(({ id, name, confirm, decline, on_no, done, desk }) =>
    present<Form>({
      name,
      slots: (slotsOf.get(id) ?? []).map((row) =>
        present<Slot>({
          name: row.name,
          entity: row.entity,
          required: row.required === 1,
          several: row.several === null ? null : row.several === 1,
          default: row.default_value === null ? null : (JSON.parse(row.default_value) as string | number),
          when: row.condition === null ? null : (JSON.parse(row.condition) as JsonLogicRule),
          prompts: JSON.parse(row.prompts) as Localised,
        }),
      ),
      confirm: localised(confirm),
      decline: localised(decline),
      onNo: on_no as Form['onNo'] | null,
      done: localised(done),
      desk,
    }),
  );
}

/** Reads a bot's document, or `null` if there is no such bot. */
export async function readDocument(db: Connection, botId: number): Promise<BotDocument | null> {
  const bot = await db.selectFrom('bot').selectAll().where('id', '=', botId).executeTakeFirst();
  if (!bot) return null;
  const desks = await db.selectFrom('desk').selectAll().where('bot_id', '=', botId).orderBy('position').execute();
  return {
    reedGate: 1,
    name: bot.name,
    languages: JSON.parse(bot.languages) as string[],
    timeZone: bot.time_zone,
    region: bot.region,
    greeting: JSON.parse(bot.greeting) as Localised,
    entities: await readEntities(db, botId),
    intents: await readIntents(db, botId),
    forms: await readForms(db, botId),
    desks: desks.map(({ name, description, handover }) =>
      present<Desk>({ name, description, handover: localised(handover) }),
    ),
    gate: { accept: bot.gate_accept, ask: bot.gate_ask, lead: bot.gate_lead },
    noMatch: JSON.parse(bot.no_match) as NoMatchSettings,
    texts: JSON.parse(bot.texts) as BotTexts,
  };
}

async function inBatches<T>(rows: readonly T[], write: (batch: T[]) => Promise<unknown>): Promise<void> {
  for (let start = 0; start < rows.length; start += BATCH) await write(rows.slice(start, start + BATCH));
}

async function writeEntity(db: Connection, botId: number, entity: Entity, position: number): Promise<void> {
  const { id } = await db
    .insertInto('entity')
    .values({
      bot_id: botId,
      position,
      name: entity.name,
      kind: entity.kind,
      misspellings: entity.misspellings ?? null,
      pattern: entity.pattern ?? null,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  const values = entity.values ?? [];
  const ids: number[] = [];
  await inBatches(values, async (batch) => {
    const offset = ids.length;
    const rows = await db
      .insertInto('entity_value')
      .values(batch.map(({ value }, index) => ({ entity_id: id, position: offset + index, value })))
      .returning('id')
      .execute();
    ids.push(...rows.map((row) => row.id));
  });
  const synonyms = values.flatMap((value, index) =>
    value.synonyms.map((text, at) => ({ value_id: ids[index]!, position: at, text })),
  );
  await inBatches(synonyms, (batch) => db.insertInto('synonym').values(batch).execute());
}

async function writeUtterances(db: Connection, intentId: number, utterances: readonly string[]): Promise<void> {
  const marked = utterances.map(readMarking);
  const ids: number[] = [];
  await inBatches(marked, async (batch) => {
    const offset = ids.length;
    const rows = await db
      .insertInto('utterance')
      .values(batch.map(({ text }, index) => ({ intent_id: intentId, position: offset + index, text })))
      .returning('id')
      .execute();
    ids.push(...rows.map((row) => row.id));
  });
  const marks = marked.flatMap(({ marks: own }, index) => own.map((mark) => ({ utterance_id: ids[index]!, ...mark })));
  await inBatches(marks, (batch) => db.insertInto('mark').values(batch).execute());
}

async function writeIntent(db: Connection, botId: number, intent: Intent, position: number): Promise<void> {
  const { id } = await db
    .insertInto('intent')
    .values({
      bot_id: botId,
      position,
      name: intent.name,
      description: intent.description ?? null,
      called: optionalJson(intent.called),
      offered: intent.offered ?? null,
      form: intent.form ?? null,
      reply: optionalJson(intent.reply),
      desk: intent.desk ?? null,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  await writeUtterances(db, id, intent.utterances);
}

async function writeForm(db: Connection, botId: number, form: Form, position: number): Promise<void> {
  const { id } = await db
    .insertInto('form')
    .values({
      bot_id: botId,
      position,
      name: form.name,
      confirm: optionalJson(form.confirm),
      decline: optionalJson(form.decline),
      on_no: form.onNo ?? null,
      done: optionalJson(form.done),
      desk: form.desk ?? null,
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  const slots = form.slots.map((slot, index) => ({
    form_id: id,
    position: index,
    name: slot.name,
    entity: slot.entity,
    required: slot.required,
    several: slot.several ?? null,
    default_value: optionalJson(slot.default),
    condition: optionalJson(slot.when),
    prompts: JSON.stringify(slot.prompts),
  }));
  await inBatches(slots, (batch) => db.insertInto('slot').values(batch).execute());
}

type Part = 'entity' | 'intent' | 'form';

/** Writes the parts that changed and moves the rest; parts that are the same object as before are left alone. */
async function writeParts<T extends { name: string }>(
  db: Connection,
  botId: number,
  table: Part,
  before: readonly T[],
  after: readonly T[],
  write: (db: Connection, botId: number, part: T, position: number) => Promise<void>,
): Promise<void> {
  if (before === after) return;
  const kept = new Set(after);
  for (const part of before) {
    if (!kept.has(part)) await db.deleteFrom(table).where('bot_id', '=', botId).where('name', '=', part.name).execute();
  }
  const positions = new Map(before.map((part, position) => [part, position]));
  for (const [position, part] of after.entries()) {
    const was = positions.get(part);
    if (was === undefined) await write(db, botId, part, position);
    else if (was !== position) {
      await db.updateTable(table).set({ position }).where('bot_id', '=', botId).where('name', '=', part.name).execute();
    }
  }
}

/**
 * Brings the tables of a bot from one document to another.
 * @param before what the tables hold; parts of `after` that are the same objects are not written again
 */
export async function writeDocument(
  db: Connection,
  botId: number,
  before: BotDocument,
  after: BotDocument,
): Promise<void> {
  await writeParts(db, botId, 'entity', before.entities, after.entities, writeEntity);
  await writeParts(db, botId, 'form', before.forms, after.forms, writeForm);
  await writeParts(db, botId, 'intent', before.intents, after.intents, writeIntent);
  if (before.desks !== after.desks) {
    await db.deleteFrom('desk').where('bot_id', '=', botId).execute();
    const desks = after.desks.map((desk, position) => ({
      bot_id: botId,
      position,
      name: desk.name,
      description: desk.description ?? null,
      handover: optionalJson(desk.handover),
    }));
    await inBatches(desks, (batch) => db.insertInto('desk').values(batch).execute());
  }
}

/** A document's own row. */
export function botColumns(document: BotDocument) {
  return {
    name: document.name,
    languages: JSON.stringify(document.languages),
    time_zone: document.timeZone,
    region: document.region,
    greeting: JSON.stringify(document.greeting),
    gate_accept: document.gate.accept,
    gate_ask: document.gate.ask,
    gate_lead: document.gate.lead,
    no_match: JSON.stringify(document.noMatch),
    texts: JSON.stringify(document.texts),
  };
}
