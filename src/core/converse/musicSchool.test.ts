import { testManners } from '../../../tests/manners.js';

/** Conversations with a bot whose forms ask for times, ages and names, and that cancels in words of its own. */
testManners('musicSchool', {
  times: [
    {
      name: 'a figure after a day is the hour',
      lines: ['violin lessons, beginner', ['friday 5', /Who is it for/], ['make it 6', /18:00/]],
      slots: { day: '2026-03-06', at: '18:00', age: undefined },
    },
    {
      name: 'hours and minutes with a dot, given and corrected',
      lines: ['move AM-102 to friday', ['5.30', /17:30/], ['no keep it friday but 6.15', /18:15/]],
      slots: { day: '2026-03-06', at: '18:15' },
    },
    {
      name: 'the weekday next to the one that is held',
      lines: ['move AM-102 to next saturday', '11', ['no, the Sunday', /15 March/]],
      slots: { day: '2026-03-15' },
    },
  ],
  changes: [
    {
      name: 'a day that is held is changed to another, though both could be a stretch',
      lines: ['violin lessons, beginner', 'friday at 5', ['can we change friday to saturday', /Who is it for/]],
      slots: { day: '2026-03-07' },
    },
    {
      name: 'a value that is held is changed, though another intent changes things too',
      lines: [
        'violin lessons, beginner',
        'friday at 5',
        ['sorry, can we change violin to cello', /Who is it for/],
        ['actually could you swap the cello for the drums', /Who is it for/],
      ],
      slots: { instrument: 'drums', day: '2026-03-06' },
    },
  ],
  names: [
    {
      name: 'a full name among other words',
      lines: [
        'violin lessons, beginner',
        'friday at 5',
        ["oh let me think, it's Priya Shah I suppose, if that is all right with you", /old/],
      ],
      slots: { pupil: 'Priya Shah' },
    },
    {
      name: 'whose name it is',
      lines: [
        'violin lessons, beginner',
        'friday at 5',
        ['me', /Who is it for/],
        ["it's for my husband Tom Weir", /old/],
      ],
      slots: { pupil: 'Tom Weir' },
    },
    {
      name: 'an address that is said in part',
      lines: [
        'hire a violin for 2 months to 4 Weir Road',
        ['jane.weir at example dot com', /Good/],
        ['perfect thanks bye', /Agreed/],
      ],
      slots: { email: 'jane.weir@example.com' },
      outcome: 'completed',
    },
  ],
  'what is asked for': [
    {
      name: 'a yes in words that the bot does not use',
      lines: ['cancel AM-102', ['yes cancel it', /AM-102 is out/]],
      outcome: 'completed',
    },
    {
      name: 'a request in small words',
      lines: ['how much', ['book one', /Do you mean “book a lesson”|Which instrument/]],
    },
    {
      name: 'two verbs',
      lines: [
        ['I want to learn the drums and also hire a kit', /Have you played/],
        'never played',
        'monday at 4',
        'Rob',
        ['9', /Shall I put/],
        ['yes', /book.*hire/],
      ],
    },
  ],
});
