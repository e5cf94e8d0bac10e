import type { SpeltWords } from '../language.js';

/** Names of the letters as they are said, and the words that stand for letters on the telephone. */
const LETTERS: ReadonlyMap<string, string> = new Map(
  `ay:a bee:b cee:c dee:d eff:f gee:g aitch:h haitch:h jay:j kay:k el:l ell:l em:m en:n oh:o pee:p queue:q cue:q ar:r ess:s tee:t
  vee:v ex:x wye:y zed:z zee:z alpha:a alfa:a bravo:b charlie:c delta:d echo:e foxtrot:f golf:g hotel:h india:i juliet:j kilo:k
  lima:l mike:m november:n oscar:o papa:p quebec:q romeo:r sierra:s tango:t uniform:u victor:v whiskey:w xray:x yankee:y zulu:z`
    .split(/\s+/)
    .map((entry) => entry.split(':') as [string, string]),
);
const NOUGHT = /^(?:oh|o|nought|naught|zero|nil)$/;
const TIMES: ReadonlyMap<string, number> = new Map([
  ['double', 2],
  ['treble', 3],
  ['triple', 3],
]);
/** Signs that are said: they part a code and are no letter of it. */
const SIGNS = /^(?:dash|hyphen|slash|stroke|minus)$/;

export const SPELT: SpeltWords = {
  letters: LETTERS,
  times: TIMES,
  isNought: (word) => NOUGHT.test(word),
  isSign: (word) => SIGNS.test(word),
};
