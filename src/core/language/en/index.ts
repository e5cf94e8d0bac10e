import type { Language } from '../language.js';
import { addressAt } from './addresses.js';
import { BACKGROUND } from './background.js';
import { CHANGES } from './changes.js';
import { CLAUSES } from './clauses.js';
import { COUNTRIES } from './countries.js';
import { DAY_READERS } from './dates/index.js';
import { noDayAt } from './dates/noDay.js';
import { readDayRange } from './dates/range.js';
import { DICTIONARY } from './dictionary.js';
import { DURATIONS } from './durations.js';
import { asSaid } from './described.js';
import { EXAMPLES } from './examples.js';
import { FIGURES } from './figures.js';
import { FREE_WORDS } from './freeWords.js';
import { MAILS } from './mails.js';
import { isGrowth, isOfDay, isOfTime, joinsMoments, leadsToMoment, partNamed, readMinutesAhead } from './moments.js';
import { readMoney, readPercent } from './money.js';
import { NAMING } from './naming.js';
import {
  isHalf,
  isOrdinalEnding,
  isPronoun,
  MINUS,
  readCount,
  readDigits,
  readOrdinal,
  TENS,
  UNITS,
} from './numbers.js';
import { personAt } from './people.js';
import { SAID_PERIODS } from './periods.js';
import { NOISE } from './noise.js';
import { readQuantity } from './quantities.js';
import { REFERENCES } from './references.js';
import { SLOTS } from './slots.js';
import { SPELLING } from './spelling.js';
import { SPELT } from './spelt.js';
import { STRETCHES } from './stretches.js';
import { TEXTS } from './texts.js';
import { readTime } from './times.js';
import { CUSTOMERS } from './customers.js';
import { VALUES } from './values.js';
import { WISHES } from './wishes.js';
import { asks, classOf, isEdge, isVerbAfter } from './wordClasses.js';
import { readAs } from './words.js';

export const ENGLISH = {
  background: BACKGROUND,
  texts: TEXTS,
  dictionary: DICTIONARY,
  spelling: SPELLING,
  classOf,
  isEdge,
  isVerbAfter,
  asks,
  readAs,
  numbers: {
    units: UNITS,
    tens: TENS,
    readDigits,
    readCount,
    readOrdinal,
    isOrdinalEnding,
    isPronoun,
    isHalf,
    minus: MINUS,
  },
  days: { readers: DAY_READERS, readRange: readDayRange, noDayAt, isOfDay },
  times: {
    readTime,
    readMinutesAhead,
    isOfTime,
    isGrowth,
    leadsTo: leadsToMoment,
    mayJoin: joinsMoments,
    partNamed,
  },
  durations: DURATIONS,
  readMoney,
  readPercent,
  readQuantity,
  spelt: SPELT,
  mails: MAILS,
  countries: COUNTRIES,
  asSaid,
  addressAt,
  personAt,
  clauses: CLAUSES,
  figures: FIGURES,
  freeWords: FREE_WORDS,
  values: VALUES,
  changes: CHANGES,
  stretches: STRETCHES,
  slots: SLOTS,
  wishes: WISHES,
  naming: NAMING,
  references: REFERENCES,
  noise: NOISE,
  customers: CUSTOMERS,
  periods: SAID_PERIODS,
  examples: EXAMPLES,
} as const satisfies Language;
