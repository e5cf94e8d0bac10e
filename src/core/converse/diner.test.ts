import { testManners } from '../../../tests/manners.js';

/** Conversations with a bot that books tables and takes orders: amounts beside hours, several things, a complaint first. */
testManners('diner', {
  'amounts and hours': [
    {
      name: 'at 12 is no amount',
      lines: [["two large soups, collect at 12, name's Rob", /2 large lentil soup, pick-up, at 12:00/]],
      slots: { portions: 2, at: '12:00' },
    },
    {
      name: 'a figure that is an amount, an address or an hour',
      lines: [
        'two large stews delivered to 9 Mill Rise at 7',
        ['no its 8', /portions \(8\), the address \(8 Mill Rise\) or the time/],
        ['yes please', /Which do you mean/],
        ['the time', /at 20:00/],
      ],
      slots: { portions: 2, address: '9 Mill Rise', at: '20:00' },
    },
    {
      name: 'for six is an hour where an hour is asked for, and in the evening',
      lines: ['a table', 'tonight', 'for six', ['no, six people', /name/], ['at eight', /20:00/]],
      slots: { guests: 6, at: '20:00' },
    },
    {
      name: 'the 22nd of May is a day',
      lines: ['table for 4 on the 22nd of May at 7, oh and one of us is allergic to nuts'],
      slots: { day: '2026-05-22', at: '19:00', guests: 4 },
    },
  ],
  'several things': [
    {
      name: 'a plural of three letters',
      lines: [['two fish pies and soup delivered to 9 Mill Rise', /First two fish pies/]],
      slots: { dish: 'fish pie', portions: 2, address: '9 Mill Rise' },
    },
    {
      name: 'a complaint that goes to a desk comes after the order',
      lines: [['your driver never came and I want to order again', /Which dish/]],
    },
    {
      name: 'the same address where there was none before',
      lines: [
        'two large soups, collect at 12',
        'yes',
        'a crumble',
        '1',
        'small',
        ['same address as before', /Delivered/],
      ],
      slots: { way: undefined },
    },
  ],
  'words of their own': [
    {
      name: 'half past is no name',
      lines: ['a table for 4 tomorrow evening', ['half past', /What name/]],
      slots: { name: undefined },
    },
    {
      name: 'let it go',
      lines: ["I don't want the table any more", 'RT7781', ['yes do that', /Gone/]],
      outcome: 'completed',
    },
  ],
});
