import { sql, type Kysely } from 'kysely';

/** Bots, their parts, models, conversations and tests. */
export async function up(db: Kysely<unknown>): Promise<void> {
  const statements = [
    `create table bot (
      id integer primary key, name text not null, languages text not null, time_zone text not null, region text not null,
      greeting text not null, gate_accept real not null, gate_ask real not null, gate_lead real not null,
      no_match text not null, revision integer not null, history_position integer not null default 0,
      created_at text not null, updated_at text not null, deleted_at text) strict`,
    `create table entity (
      id integer primary key, bot_id integer not null references bot(id) on delete cascade, position integer not null,
      name text not null, kind text not null, misspellings integer, pattern text) strict`,
    `create table entity_value (
      id integer primary key, entity_id integer not null references entity(id) on delete cascade,
      position integer not null, value text not null) strict`,
    `create table synonym (
      value_id integer not null references entity_value(id) on delete cascade, position integer not null,
      text text not null, primary key (value_id, position)) strict, without rowid`,
    `create table intent (
      id integer primary key, bot_id integer not null references bot(id) on delete cascade, position integer not null,
      name text not null, description text, form text, reply text, desk text) strict`,
    `create table utterance (
      id integer primary key, intent_id integer not null references intent(id) on delete cascade,
      position integer not null, text text not null) strict`,
    `create table mark (
      utterance_id integer not null references utterance(id) on delete cascade, slot text not null,
      start integer not null, "end" integer not null, primary key (utterance_id, start)) strict, without rowid`,
    `create table form (
      id integer primary key, bot_id integer not null references bot(id) on delete cascade, position integer not null,
      name text not null, confirm text, decline text, done text, desk text) strict`,
    `create table slot (
      form_id integer not null references form(id) on delete cascade, position integer not null, name text not null,
      entity text not null, required integer not null, condition text, prompts text not null,
      primary key (form_id, position)) strict, without rowid`,
    `create table desk (
      bot_id integer not null references bot(id) on delete cascade, position integer not null, name text not null,
      description text, handover text, primary key (bot_id, position)) strict, without rowid`,
    `create table history (
      bot_id integer not null references bot(id) on delete cascade, position integer not null, label text not null,
      redo text not null, undo text not null, at text not null, primary key (bot_id, position)) strict, without rowid`,
    `create table vector (
      text text not null, encoder text not null, vector blob not null, primary key (text, encoder)) strict, without rowid`,
    `create table model (
      bot_id integer primary key references bot(id) on delete cascade, revision integer not null,
      document text not null, data blob not null, trained_at text not null) strict`,
    `create table conversation (
      id integer primary key, bot_id integer not null references bot(id) on delete cascade,
      started_at text not null, state text not null) strict`,
    `create table turn (
      conversation_id integer not null references conversation(id) on delete cascade, position integer not null,
      said text not null, says text not null, acts text not null, trace text not null, before text not null,
      revision integer not null, primary key (conversation_id, position)) strict, without rowid`,
    `create table test_set (
      id integer primary key, bot_id integer not null references bot(id) on delete cascade, name text not null,
      created_at text not null) strict`,
    `create table test_line (
      test_set_id integer not null references test_set(id) on delete cascade, position integer not null,
      text text not null, judged integer not null, intent text, now text, slots text, style text,
      primary key (test_set_id, position)) strict, without rowid`,
    `create table test_run (
      id integer primary key, test_set_id integer not null references test_set(id) on delete cascade,
      revision integer not null, ran_at text not null, evaluation text not null, results text not null) strict`,
    `create table walkthrough (
      id integer primary key, bot_id integer not null references bot(id) on delete cascade, name text not null,
      body text not null) strict`,
    'create index entity_of_bot on entity (bot_id, position)',
    'create index value_of_entity on entity_value (entity_id, position)',
    'create index intent_of_bot on intent (bot_id, position)',
    'create index utterance_of_intent on utterance (intent_id, position)',
    'create index form_of_bot on form (bot_id, position)',
    'create index conversation_of_bot on conversation (bot_id, id)',
    'create index test_set_of_bot on test_set (bot_id, id)',
    'create index walkthrough_of_bot on walkthrough (bot_id, id)',
    'create index run_of_test_set on test_run (test_set_id, id)',
  ];
  for (const statement of statements) await sql.raw(statement).execute(db);
}
