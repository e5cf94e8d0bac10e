/** How long work goes on before others get their turn, in milliseconds. */
const LONGEST_SLICE = 10;

/** Lets others go on. */
export const pause = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

/**
 * Gathers what long work gives, in slices, so that others go on between.
 * @param work gives `null` where it may be interrupted
 */
export async function inSlices<Item>(work: Iterable<Item | null>): Promise<Item[]> {
  const items: Item[] = [];
  let began = performance.now();
  for (const item of work) {
    if (item !== null) items.push(item);
    else if (performance.now() - began > LONGEST_SLICE) {
      await pause();
      began = performance.now();
    }
  }
  return items;
}

/** The items in their order, so many at a time. */
export function* batchesOf<Item>(items: readonly Item[], size: number): Generator<Item[]> {
  for (let start = 0; start < items.length; start += size) yield items.slice(start, start + size);
}

/** Rows of one statement; SQLite takes 32,766 values in one. */
const ROWS = 500;

/** Has a statement done for rows in batches; what needs no writing goes on between them. */
export async function inBatches<Row>(rows: readonly Row[], work: (batch: Row[]) => Promise<unknown>): Promise<void> {
  let first = true;
  for (const batch of batchesOf(rows, ROWS)) {
    if (!first) await pause();
    first = false;
    await work(batch);
  }
}
