import type { Renaming } from '../../core/bot/acts/index.js';
import type { Walkthrough } from '../../core/converse/walkthrough.js';
import type { TestLine } from '../../core/formats/testFile.js';
import type { SlotValue } from '../../core/recognise/value.js';
import type { Connection } from './lists.js';
import { entriesOf } from '../../core/text/named.js';

type ExpectedSlots = NonNullable<TestLine['slots']>;

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
    entriesOf(expected).map(([slot, value]) => {
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
    .select(['id', 'slots'])
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
      .where('id', '=', line.id)
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
