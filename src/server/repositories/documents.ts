import type { Kysely } from 'kysely';
import { type Delta, type FormHead, type IntentHead, type EntityHead, type Settings } from '../../core/bot/delta.js';
import {
  DEFAULT_COSTS,
  type BotDocument,
  type ClarifySettings,
  type Desk,
  type Entity,
  type EntityKind,
  type Form,
  type GateCosts,
  type GateSettings,
  type Intent,
  type JsonLogicRule,
  type ListValue,
  type Localised,
  type NoMatchSettings,
  type RowId,
  type Slot,
  type Utterance,
} from '../../core/bot/document.js';
import type { BotTexts } from '../../core/say/engineTexts.js';
import type { Database } from '../database/schema.js';
import { rowsOf, writeList, writeParts, type Connection } from './lists.js';
import { inBatches } from '../slices.js';

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

async function readEntities(db: Kysely<Database>, botId: number): Promise<Entity[]> {
  const entities = await db.selectFrom('entity').selectAll().where('bot_id', '=', botId).orderBy('place').execute();
  const values = await db
    .selectFrom('entity_value')
    .select(['id', 'entity_id', 'value'])
    .where('bot_id', '=', botId)
    .orderBy('place')
    .execute();
  const synonyms = await db
    .selectFrom('synonym')
    .select(['value_id', 'text'])
    .where('bot_id', '=', botId)
    .orderBy('position')
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
              id: row.id,
              value: row.value,
              synonyms: (synonymsOf.get(row.id) ?? []).map((synonym) => synonym.text),
            })),
      pattern,
    }),
  );
}

async function readIntents(db: Kysely<Database>, botId: number): Promise<Intent[]> {
  const intents = await db.selectFrom('intent').selectAll().where('bot_id', '=', botId).orderBy('place').execute();
  const utterances = await db
    .selectFrom('utterance')
    .select(['id', 'intent_id', 'text'])
    .where('bot_id', '=', botId)
    .orderBy('place')
    .execute();
  const marks = await db
    .selectFrom('mark')
    .select(['utterance_id', 'slot', 'start', 'end'])
    .where('bot_id', '=', botId)
    .orderBy('start')
    .execute();
  const marksOf = groupBy(marks, (row) => row.utterance_id);
  const utterancesOf = groupBy(utterances, (row) => row.intent_id);
  return intents.map(({ id, name, description, called, offered, form, reply, desk, accept }) =>
    present<Intent>({
      name,
      description,
      called: localised(called),
      offered: offered === null ? null : offered === 1,
      form,
      reply: localised(reply),
      desk,
      accept,
      utterances: (utterancesOf.get(id) ?? []).map((row) => ({
        id: row.id,
        text: row.text,
        marks: (marksOf.get(row.id) ?? []).map(({ slot, start, end }) => ({ slot, start, end })),
      })),
    }),
  );
}

async function readForms(db: Kysely<Database>, botId: number): Promise<Form[]> {
  const forms = await db.selectFrom('form').selectAll().where('bot_id', '=', botId).orderBy('place').execute();
  const slots = await db.selectFrom('slot').selectAll().where('bot_id', '=', botId).orderBy('place').execute();
  const slotsOf = groupBy(slots, (row) => row.form_id);
  return forms.map(({ id, name, confirm, decline, on_no, done, desk }) =>
    present<Form>({
      name,
      slots: (slotsOf.get(id) ?? []).map((row) =>
        present<Slot>({
          id: row.id,
          name: row.name,
          entity: row.entity,
          required: row.required === 1,
          several: row.several === null ? null : row.several === 1,
          tries: row.tries,
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
export async function readDocument(db: Kysely<Database>, botId: number): Promise<BotDocument | null> {
  const bot = await db.selectFrom('bot').selectAll().where('id', '=', botId).executeTakeFirst();
  if (!bot) return null;
  const desks = await db.selectFrom('desk').selectAll().where('bot_id', '=', botId).orderBy('place').execute();
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
    gate: present<GateSettings>({
      accept: bot.gate_accept,
      ask: bot.gate_ask,
      lead: bot.gate_lead,
      acceptForms: bot.gate_accept_forms,
      clarify: bot.gate_clarify === null ? null : (JSON.parse(bot.gate_clarify) as ClarifySettings),
      costs: bot.gate_costs === null ? null : { ...DEFAULT_COSTS, ...(JSON.parse(bot.gate_costs) as GateCosts) },
    }),
    noMatch: JSON.parse(bot.no_match) as NoMatchSettings,
    texts: JSON.parse(bot.texts) as BotTexts,
  };
}

const settingColumns: { [K in keyof Settings]: (value: Settings[K]) => object } = {
  name: (name) => ({ name }),
  languages: (languages) => ({ languages: JSON.stringify(languages) }),
  timeZone: (time_zone) => ({ time_zone }),
  region: (region) => ({ region }),
  greeting: (greeting) => ({ greeting: JSON.stringify(greeting) }),
  gate: ({ accept, ask, lead, acceptForms, clarify, costs }) => ({
    gate_accept: accept,
    gate_ask: ask,
    gate_lead: lead,
    gate_accept_forms: acceptForms ?? null,
    gate_clarify: optionalJson(clarify),
    gate_costs: costs ? JSON.stringify(costs) : null,
  }),
  noMatch: (noMatch) => ({ no_match: JSON.stringify(noMatch) }),
  texts: (texts) => ({ texts: JSON.stringify(texts) }),
};

/** The columns of the settings of a bot. */
export function columnsOf(settings: Partial<Settings>): object {
  const columns = Object.entries(settings).map(([key, value]) =>
    (settingColumns[key as keyof Settings] as (value: unknown) => object)(value),
  );
  return Object.assign({}, ...columns) as object;
}

const DESKS = rowsOf<Desk>({
  table: 'desk',
  owner: null,
  key: 'name',
  columns: ({ name, description, handover }) => ({
    name,
    description: description ?? null,
    handover: optionalJson(handover),
  }),
});

const ENTITIES = rowsOf<EntityHead>({
  table: 'entity',
  owner: null,
  key: 'name',
  columns: ({ name, kind, misspellings, pattern }) => ({
    name,
    kind,
    misspellings: misspellings ?? null,
    pattern: pattern ?? null,
  }),
});

const INTENTS = rowsOf<IntentHead>({
  table: 'intent',
  owner: null,
  key: 'name',
  columns: (intent) => ({
    name: intent.name,
    description: intent.description ?? null,
    called: optionalJson(intent.called),
    offered: intent.offered ?? null,
    form: intent.form ?? null,
    reply: optionalJson(intent.reply),
    desk: intent.desk ?? null,
    accept: intent.accept ?? null,
  }),
});

const FORMS = rowsOf<FormHead>({
  table: 'form',
  owner: null,
  key: 'name',
  columns: (form) => ({
    name: form.name,
    confirm: optionalJson(form.confirm),
    decline: optionalJson(form.decline),
    on_no: form.onNo ?? null,
    done: optionalJson(form.done),
    desk: form.desk ?? null,
  }),
});

/** Writes what each row has in a table of its own, in place of what stood there. */
const writeOwned =
  <Row extends { id: RowId }, Owned extends 'mark' | 'synonym'>(
    table: Owned,
    owner: 'utterance_id' | 'value_id',
    ownedOf: (row: Row) => object[],
  ) =>
  async (db: Connection, botId: number, rows: readonly Row[]): Promise<void> => {
    const ids = rows.map(({ id }) => id);
    await inBatches(ids, (batch) =>
      db
        .deleteFrom(table as 'mark')
        .where('bot_id', '=', botId)
        .where(owner as 'utterance_id', 'in', batch)
        .execute(),
    );
    const owned = rows.flatMap((row) => ownedOf(row).map((one) => ({ bot_id: botId, [owner]: row.id, ...one })));
    await inBatches(owned, (batch) =>
      db
        .insertInto(table as 'mark')
        .values(batch as never)
        .execute(),
    );
  };

const UTTERANCES = rowsOf<Utterance>({
  table: 'utterance',
  owner: 'intent_id',
  key: 'id',
  columns: ({ id, text }) => ({ id, text }),
  writeMore: writeOwned('mark', 'utterance_id', ({ marks }) =>
    marks.map(({ slot, start, end }) => ({ slot, start, end })),
  ),
});

const VALUES = rowsOf<ListValue>({
  table: 'entity_value',
  owner: 'entity_id',
  key: 'id',
  columns: ({ id, value }) => ({ id, value }),
  writeMore: writeOwned('synonym', 'value_id', ({ synonyms }) =>
    synonyms.map((text, position) => ({ position, text })),
  ),
});

const SLOTS = rowsOf<Slot>({
  table: 'slot',
  owner: 'form_id',
  key: 'id',
  columns: (slot) => ({
    id: slot.id,
    name: slot.name,
    entity: slot.entity,
    required: slot.required,
    several: slot.several ?? null,
    tries: slot.tries ?? null,
    default_value: optionalJson(slot.default),
    condition: optionalJson(slot.when),
    prompts: JSON.stringify(slot.prompts),
  }),
});

/** Brings the tables of a bot to where a delta leads; only rows that the delta names are written. */
export async function writeDelta(db: Connection, botId: number, delta: Delta): Promise<void> {
  const settings = columnsOf(delta.settings);
  if (Object.keys(settings).length > 0) await db.updateTable('bot').set(settings).where('id', '=', botId).execute();
  await writeList(db, botId, { of: DESKS, ownerId: null }, delta.desks);
  await writeParts(db, botId, { heads: ENTITIES, rows: VALUES }, delta.entities);
  await writeParts(db, botId, { heads: FORMS, rows: SLOTS }, delta.forms);
  await writeParts(db, botId, { heads: INTENTS, rows: UTTERANCES }, delta.intents);
}
