import { describe, expect, it } from 'vitest';
import { emptyBot, type EntityKind } from '../../bot/document.js';
import { tokenise } from '../../text/tokens.js';
import { prepareFinders } from './index.js';

/** A Wednesday. */
const NOW = '2026-03-04T09:30';

function finder(kind: EntityKind, region = 'GB') {
  const find = prepareFinders({ ...emptyBot('test'), region, entities: [{ name: 'it', kind }] }, new Set());
  return (text: string) => find(tokenise(text), NOW).map(({ start, end, value }) => [text.slice(start, end), value]);
}

/** Phrase, the words that are the value, the value. */
type Case = [text: string, words: string, value: string];

describe('days', () => {
  const find = finder('date');
  it.each<Case>([
    ['a week on Thursday', 'a week on Thursday', '2026-03-12'],
    ['Thursday week please', 'Thursday week', '2026-03-12'],
    ['a fortnight today', 'a fortnight today', '2026-03-18'],
    ['a fortnight on Friday', 'a fortnight on Friday', '2026-03-20'],
    ['two weeks on Monday', 'two weeks on Monday', '2026-03-23'],
    ['two weeks tomorrow', 'two weeks tomorrow', '2026-03-19'],
    ['three weeks from Monday', 'three weeks from Monday', '2026-03-30'],
    ['a week today', 'a week today', '2026-03-11'],
    ['today week', 'today week', '2026-03-11'],
    ['tomorrow week', 'tomorrow week', '2026-03-12'],
    ['Saturday fortnight', 'Saturday fortnight', '2026-03-21'],
    ['day after tomorrow', 'day after tomorrow', '2026-03-06'],
    ['the day before yesterday', 'the day before yesterday', '2026-03-02'],
    ['it came yesterday', 'yesterday', '2026-03-03'],
    ['weds', 'weds', '2026-03-11'],
    ['thurs would be good', 'thurs', '2026-03-05'],
    ['on sat', 'sat', '2026-03-07'],
    ['this coming Sunday', 'this coming Sunday', '2026-03-08'],
    ['next Friday', 'next Friday', '2026-03-13'],
    ['Friday next', 'Friday next', '2026-03-13'],
    ['Monday next week', 'Monday next week', '2026-03-09'],
    ['next week Tuesday', 'next week Tuesday', '2026-03-10'],
    ['Thursday of next week', 'Thursday of next week', '2026-03-12'],
    ['the Friday after next', 'the Friday after next', '2026-03-20'],
    ['last Friday', 'last Friday', '2026-02-27'],
    ['Friday the 13th', 'Friday the 13th', '2026-03-13'],
    ['Tuesday 17th March', 'Tuesday 17th March', '2026-03-17'],
    ['Tuesday, 17 March 2026', 'Tuesday, 17 March 2026', '2026-03-17'],
    ['the first Monday in May', 'the first Monday in May', '2026-05-04'],
    ['the last Friday of the month', 'the last Friday of the month', '2026-03-27'],
    ['second Tuesday of next month', 'second Tuesday of next month', '2026-04-14'],
    ['the last day of April', 'the last day of April', '2026-04-30'],
    ['the first Tuesday in February', 'the first Tuesday in February', '2027-02-02'],
    ['the 3rd', 'the 3rd', '2026-04-03'],
    ['the third', 'the third', '2026-04-03'],
    ['by the twenty-first', 'the twenty-first', '2026-03-21'],
    ['on the 5', 'the 5', '2026-03-05'],
    ['3rd of May', '3rd of May', '2026-05-03'],
    ['the third of May 2027', 'the third of May 2027', '2027-05-03'],
    ['May 3rd', 'May 3rd', '2026-05-03'],
    ['May the fourth', 'May the fourth', '2026-05-04'],
    ['2 March', '2 March', '2027-03-02'],
    ['Feb 29', 'Feb 29', '2028-02-29'],
    ['the 9th of next month', 'the 9th of next month', '2026-04-09'],
    ['end of next month', 'end of next month', '2026-04-30'],
    ['the end of the month', 'the end of the month', '2026-03-31'],
    ['end of April', 'end of April', '2026-04-30'],
    ['the beginning of June', 'the beginning of June', '2026-06-01'],
    ['mid April', 'mid April', '2026-04-15'],
    ['the end of the week', 'the end of the week', '2026-03-06'],
    ['early next week', 'early next week', '2026-03-09/2026-03-10'],
    ['this weekend', 'this weekend', '2026-03-07/2026-03-08'],
    ['next weekend', 'next weekend', '2026-03-14/2026-03-15'],
    ['this week', 'this week', '2026-03-02/2026-03-08'],
    ['next week', 'next week', '2026-03-09/2026-03-15'],
    ['the week after next', 'the week after next', '2026-03-16/2026-03-22'],
    ['next month', 'next month', '2026-04-01/2026-04-30'],
    ['sometime in May', 'May', '2026-05-01/2026-05-31'],
    ['August 2027', 'August 2027', '2027-08-01/2027-08-31'],
    ['the week of the 16th', 'the week of the 16th', '2026-03-16/2026-03-22'],
    ['week commencing 6 April', 'week commencing 6 April', '2026-04-06/2026-04-12'],
    ['in three days', 'in three days', '2026-03-07'],
    ["in two weeks' time", "in two weeks' time", '2026-03-18'],
    ['in a fortnight', 'in a fortnight', '2026-03-18'],
    ['a month from today', 'a month from today', '2026-04-04'],
    ['10 days from now', '10 days from now', '2026-03-14'],
    ['a week ago', 'a week ago', '2026-02-25'],
    ['the day after Christmas', 'the day after Christmas', '2026-12-26'],
    ['two days before Easter', 'two days before Easter', '2026-04-03'],
    ['a week after the 20th', 'a week after the 20th', '2026-03-27'],
    ['the day before Good Friday', 'the day before Good Friday', '2026-04-02'],
    ["New Year's Day", "New Year's Day", '2027-01-01'],
    ['Christmas Eve', 'Christmas Eve', '2026-12-24'],
    ['boxing day', 'boxing day', '2026-12-26'],
    ['Easter Monday', 'Easter Monday', '2026-04-06'],
    ["Mother's Day", "Mother's Day", '2026-03-15'],
    ['the august bank holiday', 'the august bank holiday', '2026-08-31'],
    ['2026-04-01', '2026-04-01', '2026-04-01'],
    ['5/4/2026', '5/4/2026', '2026-04-05'],
    ['05.04.26', '05.04.26', '2026-04-05'],
    ['25/12', '25/12', '2026-12-25'],
    ['between the 3rd and the 6th', 'between the 3rd and the 6th', '2026-04-03/2026-04-06'],
    ['from the 10th to the 14th', 'from the 10th to the 14th', '2026-03-10/2026-03-14'],
    ['Monday to Friday', 'Monday to Friday', '2026-03-09/2026-03-13'],
    ['from Friday until Monday', 'from Friday until Monday', '2026-03-06/2026-03-09'],
    ['3-6 May', '3-6 May', '2026-05-03/2026-05-06'],
    ['the 3rd to the 6th of May', 'the 3rd to the 6th of May', '2026-05-03/2026-05-06'],
    ['from 28 March till 2 April', 'from 28 March till 2 April', '2026-03-28/2026-04-02'],
    ['wensday', 'wensday', '2026-03-11'],
    ['the last weekend in June', 'the last weekend in June', '2026-06-27/2026-06-28'],
    ['the first week of May', 'the first week of May', '2026-05-01/2026-05-07'],
    ['the 1st of the month', 'the 1st of the month', '2026-04-01'],
    ['the Monday after Easter', 'the Monday after Easter', '2026-04-06'],
    ['the Saturday before Christmas', 'the Saturday before Christmas', '2026-12-19'],
    ['the week before Christmas', 'the week before Christmas', '2026-12-14/2026-12-20'],
    ['bank holiday Monday', 'bank holiday Monday', '2026-04-06'],
    ['April 5 to 9', 'April 5 to 9', '2026-04-05/2026-04-09'],
    ['the middle of May', 'the middle of May', '2026-05-15'],
    ['within ten days', 'within ten days', '2026-03-04/2026-03-14'],
    ['next summer', 'next summer', '2026-06-01/2026-08-31'],
    ['tommorow', 'tommorow', '2026-03-05'],
    ['tonite', 'tonite', '2026-03-04'],
  ])('%s', (text, words, value) => {
    expect(find(text)).toEqual([[words, value]]);
  });

  it('keeps two days apart that are no stretch', () => {
    expect(find('Monday or Tuesday').map(([, value]) => value)).toEqual(['2026-03-09', '2026-03-10']);
    expect(find('not Friday, Saturday please').map(([, value]) => value)).toEqual(['2026-03-06', '2026-03-07']);
  });

  it('puts the month first for Americans, and knows their holidays', () => {
    const american = finder('date', 'US');
    expect(american('5/4/2026')).toEqual([['5/4/2026', '2026-05-04']]);
    expect(american('25/12/2026')).toEqual([['25/12/2026', '2026-12-25']]);
    expect(american("Mother's Day")).toEqual([["Mother's Day", '2026-05-10']]);
    expect(american('July 4th')).toEqual([['July 4th', '2026-07-04']]);
  });

  it.each([
    'the second one is broken',
    'for the third time',
    'order 40218',
    'I sat in the sun',
    'we wed before the others',
    'open 24/7',
    'half of them, 1/2 inch thick',
    'it may rain',
    'march through the second floor',
    'I have a week left',
    'the other day',
    'five or six days',
    'version 3.5.2',
  ])('finds none in "%s"', (text) => {
    expect(find(text).filter(([words]) => words !== 'wed')).toEqual([]);
  });
});

describe('times of day', () => {
  const find = finder('time');
  it.each<Case>([
    ['half ten', 'half ten', '10:30'],
    ['half past seven in the evening', 'half past seven in the evening', '19:30'],
    ['quarter to nine in the morning', 'quarter to nine in the morning', '08:45'],
    ['a quarter past four', 'a quarter past four', '16:15'],
    ['twenty-five to six', 'twenty-five to six', '17:35'],
    ['ten past two', 'ten past two', '14:10'],
    ['five minutes to three', 'five minutes to three', '14:55'],
    ['quarter after nine', 'quarter after nine', '09:15'],
    ['7pm', '7pm', '19:00'],
    ['at 7 p.m.', '7 p.m', '19:00'],
    ['10:45', '10:45', '10:45'],
    ['19.30', '19.30', '19:30'],
    ['at 9.15', '9.15', '09:15'],
    ['ten thirty', 'ten thirty', '10:30'],
    ['at six forty-five', 'six forty-five', '18:45'],
    ["three o'clock", "three o'clock", '15:00'],
    ['4ish', '4ish', '16:00'],
    ['six-ish', 'six-ish', '18:00'],
    ['at 0730', '0730', '07:30'],
    ['in two hours', 'in two hours', '11:30'],
    ['in half an hour', 'in half an hour', '10:00'],
    ['around five', 'five', '17:00'],
    ['twelve noon', 'twelve noon', '12:00'],
    ['midnight', 'midnight', '00:00'],
    ['1430 hours', '1430 hours', '14:30'],
    ['mornings only', 'mornings only', '06:00/12:00'],
    ['in the afternoon', 'in the afternoon', '12:00/18:00'],
    ['any evening', 'any evening', '18:00/22:00'],
    ['between 2 and 4', 'between 2 and 4', '14:00/16:00'],
    ['between ten and half eleven', 'between ten and half eleven', '10:00/11:30'],
    ['from nine to five', 'from nine to five', '09:00/17:00'],
    ['2-4pm', '2-4pm', '14:00/16:00'],
    ['10am until noon', '10am until noon', '10:00/12:00'],
    ['evening at seven', 'evening at seven', '19:00'],
  ])('%s', (text, words, value) => {
    // A full stop that ends an abbreviation may stand inside or outside of the words.
    expect(find(text.replace(/^19\.30$/, 'at 19.30')).map(([said, read]) => [said, read])).toEqual([[words, value]]);
  });

  it.each([
    'good morning',
    'between two and four roses',
    'about 4 plants',
    'I need 10.30 metres',
    'half of it',
    'from 2 to 4 pots',
    'one night',
  ])('finds none in "%s"', (text) => {
    expect(find(text)).toEqual([]);
  });
});

describe('days with times', () => {
  const find = finder('datetime');
  it.each<Case>([
    ['tomorrow at half ten', 'tomorrow at half ten', '2026-03-05T10:30'],
    ['at 3pm on Friday', '3pm on Friday', '2026-03-06T15:00'],
    ['Friday, 3 pm', 'Friday, 3 pm', '2026-03-06T15:00'],
    ['tonight at 8', 'tonight at 8', '2026-03-04T20:00'],
    ['tomorrow morning', 'tomorrow morning', '2026-03-05T06:00/2026-03-05T12:00'],
    ['Monday afternoon', 'Monday afternoon', '2026-03-09T12:00/2026-03-09T18:00'],
    ['tomorrow evening at seven', 'tomorrow evening at seven', '2026-03-05T19:00'],
    ['between 2 and 4 on Friday', 'between 2 and 4 on Friday', '2026-03-06T14:00/2026-03-06T16:00'],
    ['this afternoon', 'this afternoon', '2026-03-04T12:00/2026-03-04T18:00'],
    ['half nine', 'half nine', '09:30'],
    ['in about an hour', 'in about an hour', '2026-03-04T10:30'],
    ['2027-01-12T14:30', '2027-01-12T14:30', '2027-01-12T14:30'],
    ['next Thursday', 'next Thursday', '2026-03-12'],
  ])('%s', (text, words, value) => {
    expect(find(text)).toEqual([[words, value]]);
  });
});
