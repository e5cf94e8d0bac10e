import type { DayReader } from '../../dayReader.js';
import { bankHoliday } from './bankHoliday.js';
import { besideDay } from './besideDay.js';
import { counted } from './counted.js';
import { dayAndMonth } from './dayAndMonth.js';
import { dayOfMonth } from './dayOfMonth.js';
import { figures } from './figures.js';
import { monthAndDay } from './monthAndDay.js';
import { namedDay } from './namedDay.js';
import { nearDay } from './nearDay.js';
import { nthOfMonth } from './nthOfMonth.js';
import { partOfPeriod } from './partOfPeriod.js';
import { period } from './period.js';
import { season } from './season.js';
import { weekday } from './weekday.js';
import { weekdayBeside } from './weekdayBeside.js';
import { weeksOn } from './weeksOn.js';

/** All ways of naming a day. Of several that read the same words the longest counts, of equals the first. */
export const DAY_READERS: readonly DayReader[] = [
  besideDay,
  weekdayBeside,
  bankHoliday,
  season,
  nthOfMonth,
  weeksOn,
  weekday,
  nearDay,
  counted,
  namedDay,
  partOfPeriod,
  period,
  figures,
  dayAndMonth,
  monthAndDay,
  dayOfMonth,
];
