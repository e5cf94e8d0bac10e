/**
 * Edits between two words: insertion, deletion, substitution or the swap of two neighbours each cost one
 * (optimal string alignment; Damerau, 1964).
 * @param limit the highest distance of interest; anything above comes back as `limit + 1`
 */
export function editDistance(a: string, b: string, limit = Infinity): number {
  if (a === b) return 0;
  if (Math.abs(a.length - b.length) > limit) return limit + 1;
  let beforeLast: number[] = [];
  let last = Array.from({ length: b.length + 1 }, (_, column) => column);
  for (let row = 1; row <= a.length; row++) {
    const current = [row];
    let lowest = row;
    for (let column = 1; column <= b.length; column++) {
      const cost = a[row - 1] === b[column - 1] ? 0 : 1;
      let distance = Math.min(last[column]! + 1, current[column - 1]! + 1, last[column - 1]! + cost);
      if (row > 1 && column > 1 && a[row - 1] === b[column - 2] && a[row - 2] === b[column - 1]) {
        distance = Math.min(distance, beforeLast[column - 2]! + 1);
      }
      current.push(distance);
      lowest = Math.min(lowest, distance);
    }
    if (lowest > limit) return limit + 1;
    beforeLast = last;
    last = current;
  }
  return last[b.length]!;
}

/** The known name closest to a mistyped one, if it is close enough to offer. */
export function closest(name: string, known: readonly string[]): string | undefined {
  const limit = Math.max(1, Math.floor(name.length / 3));
  let best: string | undefined;
  let bestDistance = limit + 1;
  for (const candidate of known) {
    const lower = candidate.toLowerCase();
    const distance = lower.startsWith(name.toLowerCase()) ? 1 : editDistance(name.toLowerCase(), lower, limit);
    if (distance < bestDistance) {
      best = candidate;
      bestDistance = distance;
    }
  }
  return best;
}
