import type { CustomerWords } from '../talk.js';

/** What simulated customers say. */
export const CUSTOMERS: CustomerWords = {
  values: {
    number: ['two', '3', 'a dozen', 'five', '4'],
    quantity: ['two kilos', '500 g', 'three litres'],
    ordinal: ['the second', 'the third one', '1st'],
    date: ['Friday', 'next Tuesday', 'tomorrow', 'the 14th', 'a week on Monday'],
    time: ['half past three', '10am', 'about 4 in the afternoon', '11:30'],
    datetime: ['Friday at half past three', 'tomorrow at 10am', 'Monday morning at 9'],
    duration: ['two hours', 'half an hour', '3 days'],
    money: ['£20', '15 pounds', '£7.50'],
    percent: ['10 %', 'five percent'],
    email: ['wren@example.org', 'm.allard@example.com'],
    phone: ['01632 960 123', '01632 960456'],
    url: ['www.example.org', 'example.com'],
    country: ['Ireland', 'France', 'Norway'],
    person: ['Wren Allard', 'Mr Tom Penrose', "it's Priya Shah"],
    address: ['12 Sluice Lane, Dunlow', '4 Ferry Road, Tarnby', 'Flat 2, 31 Mill Street, Dunlow'],
    free: ['just the usual really', 'nothing special', 'as soon as you can'],
  },
  answers: {
    plain: ['{value}', '{value} please', '{value}, thanks'],
    terse: ['{value}'],
    chatty: [
      'oh let me think, {value} I suppose, if that is all right with you',
      'well my husband would say otherwise but {value} please, thank you so much',
      'hmm, good question! {value} would be lovely',
    ],
  },
  yes: {
    plain: ['yes', 'yes please', "yes, that's right"],
    terse: ['yes', 'y', 'ok'],
    chatty: ['yes that all sounds perfect, thanks ever so much'],
  },
  no: ['no', 'no sorry', "no, that's not right"],
  fine: ["actually it's fine as it is, yes", 'leave it, it is right'],
  corrections: ['not {wrong}, {value}', 'no, {value} not {wrong}', 'it should be {value} instead of {wrong}'],
  changes: [
    'actually make that {value} instead of {wrong}',
    'sorry, can we change {wrong} to {value}',
    'no wait, {value} rather than {wrong}',
  ],
  contradictions: ['{wrong}, no wait, {value}', '{wrong}... sorry, I mean {value}', '{wrong} - no, {value}'],
  none: ['none of those', 'no, neither of those'],
  otherwise: ["no, that's not what I want", "that isn't what I asked for"],
};
