import type { ColumnType, Generated } from 'kysely';

/** JSON kept as text; repositories parse it. */
type Json = string;
/** 0 where it is not written. */
type HiddenFlag = ColumnType<number, boolean | number | undefined, boolean | number>;
type OptionalFlag = ColumnType<number | null, boolean | number | null, boolean | number | null>;
type Flag = ColumnType<number, boolean | number, boolean | number>;

export interface BotTable {
  id: Generated<number>;
  name: string;
  languages: Json;
  time_zone: string;
  region: string;
  greeting: Json;
  gate_accept: number;
  gate_ask: number;
  gate_lead: number;
  gate_clarify: ColumnType<Json | null, Json | null | undefined, Json | null>;
  gate_accept_forms: ColumnType<number | null, number | null | undefined, number | null>;
  gate_costs: ColumnType<Json | null, Json | null | undefined, Json | null>;
  no_match: Json;
  /** The bot's own wordings of the engine's sentences. */
  texts: ColumnType<Json, Json | undefined, Json>;
  /** Number of the next form that is completed. */
  next_reference: Generated<number>;
  /** What the bot has nothing to say to, counted with its last act. */
  missing: ColumnType<number | null, number | null | undefined, number | null>;
  /** Counts the acts upon the bot; each gives a new one. */
  revision: number;
  created_at: string;
  updated_at: string;
  deleted_at: string | null;
}

export interface EntityTable {
  id: Generated<number>;
  bot_id: number;
  place: number;
  name: string;
  kind: string;
  misspellings: OptionalFlag;
  pattern: string | null;
}

export interface EntityValueTable {
  bot_id: number;
  id: string;
  entity_id: number;
  place: number;
  value: string;
}

export interface SynonymTable {
  bot_id: number;
  value_id: string;
  position: number;
  text: string;
}

export interface IntentTable {
  id: Generated<number>;
  bot_id: number;
  place: number;
  name: string;
  description: string | null;
  called: Json | null;
  offered: OptionalFlag;
  form: string | null;
  reply: Json | null;
  desk: string | null;
  accept: ColumnType<number | null, number | null | undefined, number | null>;
}

export interface UtteranceTable {
  bot_id: number;
  id: string;
  intent_id: number;
  place: number;
  text: string;
}

export interface MarkTable {
  bot_id: number;
  utterance_id: string;
  slot: string;
  start: number;
  end: number;
}

export interface FormTable {
  id: Generated<number>;
  bot_id: number;
  place: number;
  name: string;
  confirm: Json | null;
  decline: Json | null;
  on_no: string | null;
  done: Json | null;
  desk: string | null;
}

export interface SlotTable {
  bot_id: number;
  id: string;
  form_id: number;
  place: number;
  name: string;
  entity: string;
  required: Flag;
  several: OptionalFlag;
  default_value: Json | null;
  condition: Json | null;
  prompts: Json;
  tries: ColumnType<number | null, number | null | undefined, number | null>;
}

export interface DeskTable {
  bot_id: number;
  place: number;
  name: string;
  description: string | null;
  handover: Json | null;
}

/** Acts upon a bot with who did them. */
export interface HistoryTable {
  bot_id: number;
  /** Counts up in the order in which they were done. */
  number: number;
  actor: string;
  label: string;
  /** What was asked for. */
  act: Json;
  /** What takes the act back; where it has been taken back, what does it again. */
  step: Json;
  /** The last number when it was done, taken back or done again: acts with a higher one came later. */
  since: number;
  /** Who has taken it back; `null` while it stands. */
  undone_by: string | null;
  at: string;
}

export interface VectorTable {
  text: string;
  encoder: string;
  vector: Uint8Array;
}

export interface ModelTable {
  bot_id: number;
  revision: number;
  /** Its name in the folder of models. */
  file: string;
  /** The figures of its held-out predictions. */
  held_out: Json;
  trained_at: string;
}

export interface JobTable {
  id: Generated<number>;
  bot_id: number | null;
  kind: string;
  /** What it works on: a test set. */
  subject: number | null;
  state: string;
  done: number;
  total: number;
  message: string | null;
  /** What came of it: a test run. */
  result: number | null;
  started_at: string;
  ended_at: string | null;
}

export interface ConversationTable {
  id: Generated<number>;
  bot_id: number;
  started_at: string;
  state: Json;
  /** Whose it is. */
  person: string;
  name: string | null;
  /** 1 where the person wants it kept. */
  kept: HiddenFlag;
  hidden: HiddenFlag;
}

export interface TurnTable {
  conversation_id: number;
  position: number;
  said: Json;
  says: Json;
  acts: Json;
  trace: Json;
  /** The sender's own number for the turn, by which a turn sent twice is known. */
  client_id: string | null;
  /** The state before the turn, so that it can be taken back. */
  before: Json;
  revision: number;
}

export interface TestSetTable {
  id: Generated<number>;
  bot_id: number;
  name: string;
  created_at: string;
  /** 1 when it is run after each edit session. */
  after_edits: HiddenFlag;
  /** 1 when it was deleted; undo shows it again. */
  hidden: HiddenFlag;
}

export interface TestLineTable {
  id: Generated<number>;
  test_set_id: number;
  text: string;
  /** 1 when the line says what it expects, even if that is out of scope. */
  judged: Flag;
  intent: string | null;
  now: string | null;
  slots: Json | null;
  style: string | null;
  /** Lines stand by this, and then by their number; `null` stands for the number. */
  place: number | null;
  hidden: HiddenFlag;
  /** What the line tells of where it comes from. */
  tags: ColumnType<Json | null, Json | null | undefined, Json | null>;
}

export interface TestRunTable {
  id: Generated<number>;
  test_set_id: number;
  revision: number;
  ran_at: string;
  /** The weights and the kind of model that read the lines; `null` for runs of versions that did not keep it. */
  reader: string | null;
  /** The name of the state that was kept, where the bot was read as it was then. */
  state: ColumnType<string | null, string | null | undefined, string | null>;
  evaluation: Json;
  results: Json;
}

export interface WalkthroughTable {
  id: Generated<number>;
  bot_id: number;
  name: string;
  body: Json;
  hidden: HiddenFlag;
}

export interface KeptStateTable {
  id: Generated<number>;
  bot_id: number;
  name: string;
  revision: number;
  kept_at: string;
  document: Json;
  /** The label of the act that it is without; `null` for the bot as it was when it was kept. */
  before_act: string | null;
}

export interface TrialTable {
  id: Generated<number>;
  bot_id: number;
  kind: string;
  settings: Json;
  revision: number;
  reader: string;
  made_at: string;
  result: Json;
}

export interface Database {
  bot: BotTable;
  entity: EntityTable;
  entity_value: EntityValueTable;
  synonym: SynonymTable;
  intent: IntentTable;
  utterance: UtteranceTable;
  mark: MarkTable;
  form: FormTable;
  slot: SlotTable;
  desk: DeskTable;
  history: HistoryTable;
  vector: VectorTable;
  model: ModelTable;
  job: JobTable;
  conversation: ConversationTable;
  turn: TurnTable;
  test_set: TestSetTable;
  test_line: TestLineTable;
  test_run: TestRunTable;
  walkthrough: WalkthroughTable;
  trial: TrialTable;
  kept_state: KeptStateTable;
}
