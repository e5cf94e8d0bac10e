import type { Figures } from '../talk.js';

/** Words around a figure that say nothing more. */
const AROUND_NUMBER = new Set(
  `just only about around roughly approximately say maybe perhaps the a it its thats that is be would will make them of please pls
  thanks at on for to number no x um er uh oh ok okay yes no sorry actually i think have need want id like ill take there are were
  we us in total altogether and but then change so well should now instead was worth costs cost came more can could`.split(
    /\s+/,
  ),
);

/** Words that name no value: what is left of an answer is what it chooses by. */
const NO_VALUE_WORDS = new Set(
  `the a an one ones kind sort type version please thanks that this those these it its thats is be would will do i id ill we
  like want take have go with for to of my your our just only make can could think maybe then ok okay yes no sorry um er uh oh
  them some any and on in at by need prefer go rather instead actually say mean meant`.split(/\s+/),
);

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

export const FIGURES: Figures = {
  isAround: (word) => AROUND_NUMBER.has(word),
  namesOne: (word) => word === 'the',
  namesNoValue: (word) => NO_VALUE_WORDS.has(word),
  placeNamed(folded, count) {
    const words = folded.replace(/\?$/, '');
    if (LAST.test(words)) return count - 1;
    const place = PLACES.findIndex((pattern) => pattern.test(words));
    return place >= 0 && place < count ? place : null;
  },
};
