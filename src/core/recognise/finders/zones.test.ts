import { afterEach, describe, expect, it } from 'vitest';
import { LANGUAGES } from '../../language/index.js';
import { tokenise } from '../../text/tokens.js';
import { dateFinder, datetimeFinder, timeFinder } from './date.js';

const settings = { language: LANGUAGES.en, region: 'GB', vocabulary: new Set<string>() };
const before = process.env['TZ'];

describe.each(['Europe/London', 'Asia/Tokyo', 'America/New_York'])('dates in a process in %s', (zone) => {
  afterEach(() => {
    if (before === undefined) delete process.env['TZ'];
    else process.env['TZ'] = before;
  });

  it.each([
    [dateFinder, 'date', 'tomorrow', '2026-03-28T23:30', '2026-03-29'],
    [dateFinder, 'date', 'a week on Sunday', '2026-03-28T00:10', '2026-04-05'],
    [dateFinder, 'date', 'the last Sunday in October', '2026-10-20T12:00', '2026-10-25'],
    [timeFinder, 'time', 'in two hours', '2026-03-29T00:30', '02:30'],
    [datetimeFinder, 'datetime', 'in half an hour', '2026-10-25T01:45', '2026-10-25T02:15'],
  ] as const)('are those of the bot: %#', (finder, kind, text, now, value) => {
    process.env['TZ'] = zone;
    const found = finder.prepare({ name: kind, kind }, settings)(tokenise(text), now);
    expect(found.map((item) => item.value)).toEqual([value]);
  });
});
