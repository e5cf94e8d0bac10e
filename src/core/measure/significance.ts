/**
 * Whether two readings of the same lines differ by more than chance, by the lines that only one of them put right:
 * the exact form of McNemar's test (1947), two-sided. Of lines that changed, half would be mended if it were chance.
 * @param mended lines that only the second put right
 * @param broken lines that only the first put right
 * @returns how likely so uneven a split is by chance, 0..1; 1 where nothing changed
 */
export function mcNemarExact(mended: number, broken: number): number {
  const changed = mended + broken;
  if (changed === 0) return 1;
  const fewer = Math.min(mended, broken);
  // Of the binomial distribution with a half, each term from the one before, as logarithms so that none is lost.
  let logTerm = changed * Math.log(0.5);
  let tail = 0;
  for (let count = 0; count <= fewer; count++) {
    tail += Math.exp(logTerm);
    logTerm += Math.log((changed - count) / (count + 1));
  }
  return Math.min(1, 2 * tail);
}

/** A figure with the bounds between which it may well lie. */
export interface FigureInterval {
  figure: number;
  low: number;
  high: number;
}

/** How often the lines are drawn anew. */
const DRAWS = 1000;
/** What is left out at either end of 95 in 100. */
const TAIL = 0.025;

/** Numbers from 0 up to 1 that follow from a seed: mulberry32 (Ettinger, 2017), good enough to draw lines by. */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

/**
 * The mean of what each line comes to, with its 95 % interval by the percentile bootstrap (Efron, 1979); `null` of none.
 * @param seed the same seed draws the same lines
 */
export function bootstrapMean(values: readonly number[], seed: number): FigureInterval | null {
  const { length } = values;
  if (length === 0) return null;
  const draw = seeded(seed);
  const means = new Float64Array(DRAWS);
  for (let at = 0; at < DRAWS; at++) {
    let sum = 0;
    for (let line = 0; line < length; line++) sum += values[Math.floor(draw() * length)]!;
    means[at] = sum / length;
  }
  means.sort();
  const quantile = (share: number): number => {
    const place = share * (DRAWS - 1);
    const below = Math.floor(place);
    return means[below]! + (place - below) * (means[Math.min(below + 1, DRAWS - 1)]! - means[below]!);
  };
  return {
    figure: values.reduce((sum, value) => sum + value, 0) / length,
    low: quantile(TAIL),
    high: quantile(1 - TAIL),
  };
}
