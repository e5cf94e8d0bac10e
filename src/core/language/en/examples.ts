import type { Talk } from '../talk.js';

/** What customers say for a value of each kind that has no values of its own. */
export const EXAMPLES: Talk['examples'] = {
  number: 'four',
  quantity: 'two kilos',
  ordinal: 'the second',
  date: 'on Friday',
  time: 'half past three',
  datetime: 'Friday at half past three',
  duration: 'two hours',
  money: '£20',
  percent: '10 %',
  email: 'wren@example.org',
  phone: '01632 960 123',
  url: 'www.example.org',
  country: 'Ireland',
  person: 'Wren Allard',
  address: '12 Sluice Lane, Dunlow',
  free: 'in my own words',
};
