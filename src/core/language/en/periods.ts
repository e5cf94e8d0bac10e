import type { Periods } from '../talk.js';

/** Parts of the day by how they are kept as an interval. */
const PERIODS: ReadonlyMap<string, string> = new Map([
  ['06:00/12:00', 'the morning'],
  ['12:00/14:00', 'lunchtime'],
  ['12:00/18:00', 'the afternoon'],
  ['18:00/22:00', 'the evening'],
  ['20:00/23:59', 'the night'],
]);

export const SAID_PERIODS: Periods = {
  sayPeriod: (interval) => PERIODS.get(interval)?.replace(/^the /, '') ?? null,
  sayInPeriod(interval) {
    const period = PERIODS.get(interval);
    return period === undefined ? null : period.startsWith('the') ? `in ${period}` : `at ${period}`;
  },
  leadIn: /(?:^|\s)(on|at)\s+$/iu,
  fromTo: (from, to) => `from ${from} to ${to}`,
};
