import { testManners } from '../../../tests/manners.js';

/** Conversations with a bot whose forms ask for sums, addresses, countries, names and telephone numbers. */
testManners('parcels', {
  'a code': [
    {
      name: 'that was spoken of is not asked for again',
      lines: ['where is TP120121', ['cancel it then', /Shall I cancel the collection TP120121/]],
    },
    {
      name: 'that was spoken of is what is cancelled, not the question that stands open',
      lines: [
        'where is TP120121',
        ['can you redeliver it tomorrow', /^Do you mean “ask a callback”\?$/],
        ['cancel it then', /Shall I cancel the collection TP120121/],
      ],
    },
    {
      name: 'of another thing is asked for',
      lines: ['where is TP120121', ['can I cancel another collection', /Which one/]],
    },
    {
      name: 'that was spoken of goes with what is claimed for it',
      lines: ['where is TP120121', ['its arrived smashed', /What was it worth/]],
    },
    {
      name: 'that is not written so',
      lines: [
        "where's my parcel",
        ['WP123', /“WP123” does not look right. It is written like TP777777/],
        ['its the one from mum', /^(?!.*does not look right)/],
      ],
    },
  ],
  figures: [
    {
      name: 'a bare figure is a sum where a sum is asked for, and corrects the one that is held',
      lines: ['it arrived smashed', 'TP120121', ['about 40', /£40\.00/], ['no, it was fifty', /£50\.00/]],
      slots: { worth: { amount: 50, currency: 'GBP' } },
    },
    {
      name: 'just the one',
      lines: ['pick up a pallet tomorrow', ['just the one', /Where/], ['077009004', /Where/]],
      slots: { parcels: 1 },
    },
    {
      name: 'the number that was given, not the amount',
      lines: [
        'send two shoe boxes to France from 18 Withy Walk',
        ['Ann Teague, 07700 900777', /Which day/],
        'tomorrow',
        ['no the number is wrong', /number for the driver/],
        ['07700 900778', /900778/],
      ],
      slots: { parcels: 2, sender: 'Ann Teague', phone: '+447700900778' },
    },
  ],
  'steering at the wrong place': [
    {
      name: 'no number to give is no wish to change one',
      lines: ['pick up a pallet tomorrow', '1', '9 Kiln Street', 'Spain', ['no number', /name/]],
      slots: { parcels: 1 },
    },
    {
      name: 'waiting at a form that a no leaves',
      lines: ['cancel collection TP300301', ['no wait', /Shall I cancel/], ['yes do', /is off/]],
      outcome: 'completed',
    },
    {
      name: 'where it may be left is no address',
      lines: [
        'send two shoe boxes to Spain',
        ['TP991122', /Where shall we collect/],
        ['please leave the other one with a neighbour if I am out', /Which parcel/],
        ['TP991122', /Where should it go/],
      ],
    },
    {
      name: 'the number is wrong too',
      lines: [
        'redirect TP991122 to 22 Weir Road',
        ["no the number's wrong too", /Which parcel/],
        ['TP991123', /TP991123 to/],
      ],
    },
    {
      name: 'two wishes, the second at the yes',
      lines: ['cancel collection TP300301', ['yes and book a new one for Friday', /is off.*How big/]],
      slots: { day: '2026-03-06' },
    },
    {
      name: 'France or Spain',
      lines: [['send a shoe box to France or Spain', /France or Spain/], 'France'],
      slots: { country: 'France' },
    },
  ],
});
