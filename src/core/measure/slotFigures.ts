import type { ExpectedSlot } from '../formats/testFile.js';
import type { SlotReading } from '../recognise/slots.js';
import { showValue, type SlotValue } from '../recognise/value.js';
import { f1Score } from './classification.js';

/** A line with the slots that it ought to have and those that were found. */
export interface SlotLine {
  text: string;
  /** With the entity of each, where the bot has such a slot; `null` where the line does not list them. */
  expectedSlots: (ExpectedSlot & { entity?: string })[] | null;
  slots: SlotReading[];
}

/** A stretch of a message with what it is. */
interface Stretch {
  start: number;
  end: number;
}

/** How well slots and entities are found: F1 each, `null` where there was nothing to find or to be found. */
export interface SlotFigures {
  /** The slot, with exactly the expected words. */
  exact: number | null;
  /** The slot, with some of the expected words. */
  partial: number | null;
  /** The slot with the expected value, wherever it stands; of the lines that tell the values of all their slots. */
  byValue: number | null;
  /** The entity, whichever slot it goes to. */
  entityExact: number | null;
  entityPartial: number | null;
}

/** What of a line's slots is not as it ought to be. */
export interface SlotFaults {
  missing: { slot: string; text: string }[];
  extra: { slot: string; text: string }[];
}

const sameStretch = (a: Stretch, b: Stretch): boolean => a.start === b.start && a.end === b.end;
const overlap = (a: Stretch, b: Stretch): boolean => a.start < b.end && b.start < a.end;

/** Pairs what is expected with what was found, each once, and tells which found ones fit. */
function paired<Expected, Found>(
  expected: readonly Expected[],
  found: readonly Found[],
  fits: (expected: Expected, found: Found) => boolean,
): { fitting: Set<Found>; missing: Expected[] } {
  const fitting = new Set<Found>();
  const missing = expected.filter((one) => {
    const other = found.find((candidate) => !fitting.has(candidate) && fits(one, candidate));
    if (other === undefined) return true;
    fitting.add(other);
    return false;
  });
  return { fitting, missing };
}

type Expected = NonNullable<SlotLine['expectedSlots']>[number];
type Found = SlotReading;

function score(results: readonly SlotLine[], fits: (expected: Expected, found: Found) => boolean): number | null {
  let [correct, predicted, support] = [0, 0, 0];
  for (const { expectedSlots, slots } of results) {
    if (!expectedSlots) continue;
    support += expectedSlots.length;
    predicted += slots.length;
    correct += paired(expectedSlots, slots, fits).fitting.size;
  }
  return f1Score(correct, predicted, support);
}

/** Whether two values are the same as they are shown: in a sheet a value is told in words. */
const sameShown = (expected: SlotValue, found: SlotValue): boolean => showValue(expected) === showValue(found);

const tellsValues = ({ expectedSlots }: SlotLine): boolean =>
  expectedSlots?.every(({ value }) => value !== undefined) ?? false;

/** @param results of lines in scope; those that do not list their slots do not count */
export function slotFigures(results: readonly SlotLine[]): SlotFigures {
  const sameSlot = (expected: Expected, found: Found) => expected.slot === found.slot;
  const sameEntity = (expected: Expected, found: Found) => expected.entity === found.entity;
  const values = results.filter(tellsValues);
  const told = results.filter(({ expectedSlots }) => expectedSlots?.every(({ entity }) => entity !== undefined));
  return {
    exact: score(results, (expected, found) => sameSlot(expected, found) && sameStretch(expected, found)),
    partial: score(results, (expected, found) => sameSlot(expected, found) && overlap(expected, found)),
    byValue: values.some(({ expectedSlots }) => expectedSlots!.length > 0)
      ? score(values, (expected, found) => sameSlot(expected, found) && sameShown(expected.value!, found.value))
      : null,
    entityExact: score(told, (expected, found) => sameEntity(expected, found) && sameStretch(expected, found)),
    entityPartial: score(told, (expected, found) => sameEntity(expected, found) && overlap(expected, found)),
  };
}

/** What of a line's slots is not as it ought to be; `null` where all is, or where the line does not list them. */
export function slotFaults({ text, expectedSlots, slots }: SlotLine): SlotFaults | null {
  if (!expectedSlots) return null;
  const { fitting, missing } = paired(
    expectedSlots,
    slots,
    (expected, found) => expected.slot === found.slot && sameStretch(expected, found),
  );
  const extra = slots.filter((slot) => !fitting.has(slot));
  if (missing.length === 0 && extra.length === 0) return null;
  const told = ({ slot, start, end }: { slot: string } & Stretch) => ({ slot, text: text.slice(start, end) });
  return { missing: missing.map(told), extra: extra.map(told) };
}
