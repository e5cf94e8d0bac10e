import jsonPatch, { type Operation } from 'fast-json-patch';
import type { Transaction } from 'kysely';
import type { BotDocument } from '../../core/bot/document.js';
import type { TestLine } from '../../core/formats/testFile.js';
import type { Walkthrough } from '../../core/converse/walkthrough.js';
import type { SlotValue } from '../../core/recognise/value.js';
import type { Database } from '../database/schema.js';

type Connection = Transaction<Database>;
type ExpectedSlots = NonNullable<TestLine['slots']>;

/** Another name for a slot of a form, for a value of the slots of an entity or for an intent, which tests follow. */
export type Renaming =
  | { what: 'slot'; from: string; to: string; intents: string[]; ownSlots: string[]; otherSlots: string[] }
  | { what: 'value'; from: string; to: string; slots: string[] }
  | { what: 'intent'; from: string; to: string };

/** Rows that an act shows or hides; hidden ones come back with undo. Lines are named by their place in a test set. */
export type Shown =
  | { part: 'test_set' | 'walkthrough' | 'conversation'; ids: number[]; hidden: boolean }
  | { part: 'test_line'; ids: number[]; testSet: number; hidden: boolean };

/** What a step of the history does in one direction. */
export type HistoryStep = { patch: Operation[]; renaming?: Renaming } | { shown: Shown };

/** Acts kept for undo; older ones are forgotten. */
const HISTORY_LENGTH = 200;

/** Steps kept by earlier versions are a patch alone. */
export function readStep(json: string): HistoryStep {
  const step = JSON.parse(json) as HistoryStep | Operation[];
  return Array.isArray(step) ? { patch: step } : step;
}

/** Keeps an act as the last that was done; acts that were undone before it are forgotten. */
export async function keepStep(
  db: Connection,
  botId: number,
  { label, redo, undo, at }: { label: string; redo: HistoryStep; undo: HistoryStep; at: string },
): Promise<void> {
  const { history_position: position } = await db
    .selectFrom('bot')
    .select('history_position')
    .where('id', '=', botId)
    .executeTakeFirstOrThrow();
  await db.deleteFrom('history').where('bot_id', '=', botId).where('position', '>=', position).execute();
  await db
    .deleteFrom('history')
    .where('bot_id', '=', botId)
    .where('position', '<', position - HISTORY_LENGTH)
    .execute();
  await db
    .insertInto('history')
    .values({ bot_id: botId, position, label, redo: JSON.stringify(redo), undo: JSON.stringify(undo), at })
    .execute();
  await db
    .updateTable('bot')
    .set({ history_position: position + 1 })
    .where('id', '=', botId)
    .execute();
}

/** Hides rows or shows them again. */
export async function setShown(db: Connection, botId: number, shown: Shown): Promise<void> {
  const { ids, hidden } = shown;
  if (shown.part === 'test_line') {
    await db
      .updateTable('test_line')
      .set({ hidden })
      .where('test_set_id', '=', shown.testSet)
      .where('position', 'in', ids)
      .execute();
    return;
  }
  await db.updateTable(shown.part).set({ hidden }).where('bot_id', '=', botId).where('id', 'in', ids).execute();
}

/** Applies a patch so that parts it does not touch stay the same objects. */
export function patched(document: BotDocument, patch: readonly Operation[]): BotDocument {
  const next = structuredClone(document);
  jsonPatch.applyPatch(next, structuredClone(patch) as Operation[]);
  const same = <T>(before: readonly T[], after: readonly T[]): T[] => {
    const known = new Map(before.map((part) => [JSON.stringify(part), part]));
    return after.map((part) => known.get(JSON.stringify(part)) ?? part);
  };
  return {
    ...next,
    entities: same(document.entities, next.entities),
    intents: same(document.intents, next.intents),
    forms: same(document.forms, next.forms),
  };
}

/** The renaming that takes another back. */
export function reversed(renaming: Renaming): Renaming {
  const { from, to } = renaming;
  if (renaming.what !== 'slot') return { ...renaming, from: to, to: from };
  return { ...renaming, from: to, to: from, ownSlots: renaming.ownSlots.map((slot) => (slot === from ? to : slot)) };
}

/** Whether a walkthrough ends in the form whose slot has another name: its slots are that form's, and no other's. */
function endsInForm(
  { expect }: Walkthrough,
  { from, ownSlots, otherSlots }: Extract<Renaming, { what: 'slot' }>,
): boolean {
  const slots = Object.keys(expect.slots ?? {});
  const own = slots.every((slot) => ownSlots.includes(slot));
  return (
    slots.includes(from) && own && (!otherSlots.includes(from) || slots.some((slot) => !otherSlots.includes(slot)))
  );
}

/** A value under its new name, also where it is one of several. */
const valueRenamed = (value: SlotValue, { from, to }: Renaming): SlotValue =>
  Array.isArray(value) ? value.map((one) => (one === from ? to : one)) : value === from ? to : value;

/** The slots that a test line expects, under the new name; `null` where they have nothing of it. */
function lineRenamed(slots: ExpectedSlots, renaming: Exclude<Renaming, { what: 'intent' }>): ExpectedSlots | null {
  const { from, to } = renaming;
  const renamed = slots.map((slot) => {
    if (renaming.what === 'slot') return slot.slot === from ? { ...slot, slot: to } : slot;
    const holds = renaming.slots.includes(slot.slot) && slot.value !== undefined;
    return holds ? { ...slot, value: valueRenamed(slot.value!, renaming) } : slot;
  });
  return JSON.stringify(renamed) === JSON.stringify(slots) ? null : renamed;
}

/** A walkthrough that expects what has another name; `null` where it expects nothing of it. */
function walkthroughRenamed(
  walkthrough: Walkthrough,
  renaming: Exclude<Renaming, { what: 'intent' }>,
): Walkthrough | null {
  if (renaming.what === 'slot' && !endsInForm(walkthrough, renaming)) return null;
  const { from, to } = renaming;
  const expected = walkthrough.expect.slots ?? {};
  const slots = Object.fromEntries(
    Object.entries(expected).map(([slot, value]) => {
      if (renaming.what === 'slot') return [slot === from ? to : slot, value];
      return [slot, renaming.slots.includes(slot) && value !== null ? valueRenamed(value, renaming) : value];
    }),
  );
  return JSON.stringify(slots) === JSON.stringify(expected)
    ? null
    : { ...walkthrough, expect: { ...walkthrough.expect, slots } };
}

/** Brings tests and walkthroughs to another name. */
export async function followRenaming(db: Connection, botId: number, renaming: Renaming): Promise<void> {
  const sets = db.selectFrom('test_set').select('id').where('bot_id', '=', botId);
  if (renaming.what === 'intent') {
    await db
      .updateTable('test_line')
      .set({ intent: renaming.to })
      .where('test_set_id', 'in', sets)
      .where('intent', '=', renaming.from)
      .execute();
    return;
  }
  const withSlots = db
    .selectFrom('test_line')
    .select(['test_set_id', 'position', 'slots'])
    .where('test_set_id', 'in', sets)
    .where('slots', 'is not', null);
  const lines = await (
    renaming.what === 'slot'
      ? withSlots.where('intent', 'in', renaming.intents.length > 0 ? renaming.intents : [''])
      : withSlots
  ).execute();
  for (const line of lines) {
    const renamed = lineRenamed(JSON.parse(line.slots!) as ExpectedSlots, renaming);
    if (!renamed) continue;
    await db
      .updateTable('test_line')
      .set({ slots: JSON.stringify(renamed) })
      .where('test_set_id', '=', line.test_set_id)
      .where('position', '=', line.position)
      .execute();
  }
  const walkthroughs = await db.selectFrom('walkthrough').select(['id', 'body']).where('bot_id', '=', botId).execute();
  for (const { id, body } of walkthroughs) {
    const renamed = walkthroughRenamed(JSON.parse(body) as Walkthrough, renaming);
    if (!renamed) continue;
    await db
      .updateTable('walkthrough')
      .set({ body: JSON.stringify(renamed) })
      .where('id', '=', id)
      .execute();
  }
}
