import { testManners } from '../../../tests/manners.js';

/** Conversations with a bot whose forms ask for the two ends of a stay, for amounts and for free words. */
testManners('campsite', {
  'days of a stay': [
    {
      name: 'a day alone is the first, and a weekday lies near the end that it is for',
      lines: [
        'I want to book a stay',
        'pod',
        ['the bank holiday', /which day do you leave/],
        '3 nights',
        '2',
        'Pat',
        ['pat@example.org', /from 3 April 2026 to 6 April 2026/],
        ['make it leave tuesday', /from 3 April 2026 to 7 April 2026/],
        ['no arrive on thursday', /from 2 April 2026 to 7 April 2026/],
        ['friday', /Which do you mean/],
      ],
    },
  ],
  'several things': [
    {
      name: 'of which the people are no number',
      lines: [['book a tent pitch and a family pod from friday to sunday', /one thing at a time. First tent pitch/]],
      slots: { pitch: 'tent pitch', people: undefined },
    },
  ],
  'a number that the bot gave': [
    {
      name: 'is not asked for',
      lines: [
        'book a family pod from friday to sunday for 2',
        'Pat Lee',
        'pat@example.org',
        ['yes', /Your number is SM-40001/],
        ['actually cancel it', /^Shall I cancel SM-40001\?/],
        ['yes', /is cancelled/],
      ],
    },
  ],
  'a number that the bot did not give': [
    {
      name: 'is asked for',
      lines: ['book a family pod from friday to sunday for 2', ['forget it', /left/], ['cancel it', /booking number/]],
    },
    {
      name: 'is asked for, whatever was answered in between',
      lines: ['book a family pod from friday to sunday for 2', 'forget it', 'thanks', ['cancel it', /booking number/]],
    },
  ],
  'leaving is not always leaving': [
    {
      name: 'the request itself',
      lines: [
        ['cancel my booking', /booking number/],
        ['SM 1042', /Shall I cancel SM-1042/],
      ],
    },
    {
      name: 'a yes in the words of the question',
      lines: ['cancel SM-1042', ['cancel it please', /SM-1042 is cancelled/]],
      outcome: 'completed',
    },
    { name: 'yes, cancel it', lines: ['cancel SM-1042', ['yes cancel it', /is cancelled/]], outcome: 'completed' },
    { name: 'no, it stays', lines: ['cancel SM-1042', ['no, keep it', /stays/], 'ok', 'yes'], outcome: 'cancelled' },
    { name: 'nothing to forget', lines: [['forget it', /Goodbye/]] },
  ],
  'an answer is an answer': [
    {
      name: 'evening is no greeting where it is asked for',
      lines: ['I want some charcoal', '2', ['evening', /Which pitch/], ['pitch 4', /2 charcoal.*pitch 4/]],
      slots: { quantity: 2, when: 'evening', place: 'pitch 4' },
    },
    {
      name: 'the number of a pitch counts nothing',
      lines: ['bring 2 bags of firewood to pitch 9', ['in the afternoon', /2 firewood.*pitch 9/]],
      slots: { quantity: 2, place: 'pitch 9' },
    },
    {
      name: 'one more request is no quantity',
      lines: [
        'bring 2 bags of firewood to pitch 9',
        'oh and one more request',
        ['in the afternoon', /2 firewood.*pitch 9/],
      ],
      slots: { quantity: 2, place: 'pitch 9' },
    },
    {
      name: 'a value alone is no other request',
      lines: ['can you bring gas', '3', ['the day after tomorrow', /Morning, afternoon or evening/], 'in the morning'],
      slots: { quantity: 3, when: 'morning' },
    },
    {
      name: 'half of one is told to be wrong',
      lines: ['a pitch for a caravan', 'Friday', 'Sunday', ['half a person', /whole number/], ['two', /name/]],
      slots: { people: 2 },
    },
  ],
  'two days': [
    {
      name: 'nights are no people',
      lines: [
        ['a caravan from 3 May for 3 nights', /How many of you/],
        ['actually 4 nights', /7 May/],
      ],
      slots: { arrive: '2026-05-03', leave: '2026-05-07', people: undefined },
    },
    {
      name: 'one day or the other',
      lines: [['have you got a pitch for Friday or Saturday', /Friday 6 March or Saturday 7 March/], 'Friday'],
      slots: { arrive: '2026-03-06', leave: undefined },
    },
    {
      name: 'a day goes to the slot that was asked for',
      lines: ['book a motorhome from 30 April', ['to 3 May', /How many of you/]],
      slots: { arrive: '2026-04-30', leave: '2026-05-03' },
    },
    {
      name: 'a weekday is reckoned from the beginning of the stay',
      lines: ['a tent', 'next fri', ['till mon', /How many of you/]],
      slots: { arrive: '2026-03-13', leave: '2026-03-16' },
    },
    {
      name: 'a day that fits both ends is asked about',
      lines: [
        'bell tent tomorrow till Sunday for two people under Priya Nair, priya@nair.example',
        ['make it the 7th', /7th.*arrive.*leave/],
        ['the day I leave', /5 March 2026 to 7 March/],
      ],
      slots: { arrive: '2026-03-05', leave: '2026-03-07' },
    },
    {
      name: 'a day that can be one end only is that',
      lines: [
        'bell tent tomorrow till Sunday for two people under Priya Nair, priya@nair.example',
        ['no, make it Monday', /5 March 2026 to 9 March/],
        ['no, arrive on the 20th', /end before it begins/],
        ['the 6th', /6 March 2026 to 9 March/],
      ],
    },
    {
      name: 'a day of the past',
      lines: [['we stayed last weekend in the family pod and want to book again for Easter', /gone by/]],
      slots: { pitch: 'family pod' },
    },
    {
      name: 'no such day for the slot that was asked for',
      lines: ['a caravan this Friday please', ['31 February', /no such day.*leave/], ['two nights', /How many of you/]],
      slots: { arrive: '2026-03-06', leave: '2026-03-08' },
    },
    {
      name: 'a leap day of a year that has none',
      lines: ['a caravan', ['29 February 2027', /no such day/], ['29 February 2028', /leave/]],
      slots: { arrive: '2028-02-29' },
    },
    {
      name: 'changing the days while the form is filled',
      lines: ['a tent from next Friday to next Sunday', ['nah change the date', /arrive/], 'thursday', 'saturday'],
      slots: { arrive: '2026-03-05', leave: '2026-03-07' },
    },
  ],
  'what else a message says': [
    {
      name: 'a question beside a request',
      lines: [['bell tent tomorrow till Sunday for me and my wife, and can I bring my dog', /lead.*How many of you/]],
      slots: { pitch: 'bell tent', arrive: '2026-03-05' },
    },
    {
      name: 'a question that is not sure is offered',
      lines: [
        ['the people next door were loud, cancel SM-1042 and give me the lane', /Shall I cancel/],
        ['yes', /cancelled.*where/],
        ['yes', /Sallow Lane/],
      ],
    },
    {
      name: 'a question is answered, and what changes something asked for',
      lines: [
        [
          'the people next door were loud, cancel SM-1042 and tell me which road it is on',
          /Sallow Lane.*Shall I cancel/,
        ],
        ['yes', /cancelled/],
      ],
    },
    {
      name: 'the family one',
      lines: [['can we bring the dog and book the family one for this weekend', /lead.*How many/]],
      slots: { pitch: 'family pod', arrive: '2026-03-07' },
    },
    {
      name: 'a few words after a no',
      lines: [
        'order 2 charcoal to the pod by the lake this evening',
        ['no, the tent', /What should I change/],
        ['fine, only one of those', /1 charcoal/],
      ],
    },
    {
      name: 'the number and the day',
      lines: [
        'move SM-1042 to Saturday please',
        ['no I want to change the number and the day', /booking number/],
        'SM-1050',
        ['Sunday', /Move SM-1050 to 8 March/],
      ],
    },
    { name: 'in the name of', lines: ['a tent from Friday to Sunday for 3', ['put it in the name of Kit', /e-mail/]] },
  ],
});
