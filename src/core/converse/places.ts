/** Words around a place in a list that say nothing more. */
const AROUND = `(?:(?:um|er|oh|ok|i think|i mean|id like|i want|lets say|go for|its|please|the|number|option|choice|no) )*`;
const AFTER = `(?: (?:one|option|please|thanks|of (?:those|them|the two)|then))*`;

const PLACES: readonly RegExp[] = [
  /(?:1|1st|one|first|former)/,
  /(?:2|2nd|two|second|latter)/,
  /(?:3|3rd|three|third)/,
  /(?:4|4th|four|fourth)/,
].map((place) => new RegExp(`^${AROUND}${place.source}${AFTER}$`));
const LAST = new RegExp(`^${AROUND}last${AFTER}$`);

/**
 * The place in a list that a message names and says nothing besides: "2", "the second one", "number 2". Zero for the
 * first; `null` where it names none of so many.
 */
export function placeNamed(folded: string, count: number): number | null {
  const words = folded.replace(/\?$/, '');
  if (LAST.test(words)) return count - 1;
  const place = PLACES.findIndex((pattern) => pattern.test(words));
  return place >= 0 && place < count ? place : null;
}
