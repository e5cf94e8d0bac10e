import { sql, type Kysely } from 'kysely';

/** The order of parts as a number that leaves room between two, so that a row comes or goes without the others. */
async function usePlaces(db: Kysely<unknown>, table: string, index: string): Promise<void> {
  const statements = [
    `drop index ${index}`,
    `alter table ${table} add column place real not null default 0`,
    `update ${table} set place = position`,
    `alter table ${table} drop column position`,
    `create index ${index} on ${table} (bot_id, place)`,
  ];
  for (const statement of statements) await sql.raw(statement).execute(db);
}

/** Rows with lasting ids, places that leave room, acts with their inverse and who did them, conversations of a person. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await usePlaces(db, 'entity', 'entity_of_bot');
  await usePlaces(db, 'intent', 'intent_of_bot');
  await usePlaces(db, 'form', 'form_of_bot');
  const statements = [
    `create table new_utterance (
      bot_id integer not null references bot(id) on delete cascade, id text not null,
      intent_id integer not null references intent(id) on delete cascade, place real not null, text text not null,
      primary key (bot_id, id)) strict, without rowid`,
    `create table new_mark (
      bot_id integer not null, utterance_id text not null, slot text not null, start integer not null,
      "end" integer not null, primary key (bot_id, utterance_id, start),
      foreign key (bot_id, utterance_id) references new_utterance (bot_id, id) on delete cascade) strict, without rowid`,
    `insert into new_utterance select intent.bot_id, 'u' || utterance.id, intent_id, utterance.position, text
      from utterance join intent on intent.id = utterance.intent_id`,
    `insert into new_mark select intent.bot_id, 'u' || utterance_id, slot, start, "end"
      from mark join utterance on utterance.id = mark.utterance_id join intent on intent.id = utterance.intent_id`,
    'drop table mark',
    'drop table utterance',
    'alter table new_utterance rename to utterance',
    'alter table new_mark rename to mark',
    'create index utterance_of_intent on utterance (intent_id, place)',

    `create table new_value (
      bot_id integer not null references bot(id) on delete cascade, id text not null,
      entity_id integer not null references entity(id) on delete cascade, place real not null, value text not null,
      primary key (bot_id, id)) strict, without rowid`,
    `create table new_synonym (
      bot_id integer not null, value_id text not null, position integer not null, text text not null,
      primary key (bot_id, value_id, position),
      foreign key (bot_id, value_id) references new_value (bot_id, id) on delete cascade) strict, without rowid`,
    `insert into new_value select entity.bot_id, 'v' || entity_value.id, entity_id, entity_value.position, value
      from entity_value join entity on entity.id = entity_value.entity_id`,
    `insert into new_synonym select entity.bot_id, 'v' || value_id, synonym.position, text
      from synonym join entity_value on entity_value.id = synonym.value_id
      join entity on entity.id = entity_value.entity_id`,
    'drop table synonym',
    'drop table entity_value',
    'alter table new_value rename to entity_value',
    'alter table new_synonym rename to synonym',
    'create index value_of_entity on entity_value (entity_id, place)',

    `create table new_slot (
      bot_id integer not null references bot(id) on delete cascade, id text not null,
      form_id integer not null references form(id) on delete cascade, place real not null, name text not null,
      entity text not null, required integer not null, several integer, default_value text, condition text,
      prompts text not null, primary key (bot_id, id)) strict, without rowid`,
    `insert into new_slot select form.bot_id, 's' || form_id || '-' || slot.position, form_id, slot.position, slot.name,
      entity, required, several, default_value, condition, prompts from slot join form on form.id = slot.form_id`,
    'drop table slot',
    'alter table new_slot rename to slot',
    'create index slot_of_form on slot (form_id, place)',

    `create table new_desk (
      bot_id integer not null references bot(id) on delete cascade, name text not null, place real not null,
      description text, handover text, primary key (bot_id, name)) strict, without rowid`,
    'insert into new_desk select bot_id, name, position, description, handover from desk',
    'drop table desk',
    'alter table new_desk rename to desk',

    `create table new_line (
      id integer primary key, test_set_id integer not null references test_set(id) on delete cascade,
      text text not null, judged integer not null, intent text, now text, slots text, style text,
      hidden integer not null default 0) strict`,
    `insert into new_line (test_set_id, text, judged, intent, now, slots, style, hidden)
      select test_set_id, text, judged, intent, now, slots, style, hidden from test_line order by test_set_id, position`,
    'drop table test_line',
    'alter table new_line rename to test_line',
    'create index line_of_test_set on test_line (test_set_id, id)',

    // Steps kept so far are differences of whole documents, which no longer mean anything.
    'drop table history',
    `create table history (
      bot_id integer not null references bot(id) on delete cascade, number integer not null, actor text not null,
      label text not null, act text not null, step text not null, since integer not null, undone_by text,
      at text not null,
      primary key (bot_id, number)) strict, without rowid`,
    'create index history_of_actor on history (bot_id, actor, number)',
    'alter table bot drop column history_position',

    "alter table conversation add column person text not null default ''",
    'alter table conversation add column name text',
    'alter table conversation add column kept integer not null default 0',
    'create index conversation_of_person on conversation (bot_id, person, id)',
  ];
  for (const statement of statements) await sql.raw(statement).execute(db);
}
