import { testManners } from '../../../tests/manners.js';

/** Conversations with a bot of a trade of its own, as customers lead them. */
testManners('cycleShop', {
  'commands stand apart': [
    {
      name: 'leaving it with somebody',
      lines: ['I want to book a repair', 'brakes', ["I'll leave it with you on Friday at 3pm", /name/]],
      slots: { day: '2026-03-06', at: '15:00' },
    },
    {
      name: 'what will not stop',
      lines: ['book my bike in for brakes on Monday', ['it is the brakes, they will not stop', /time/]],
      slots: { work: 'brakes' },
    },
    {
      name: 'another day is better',
      lines: [
        'book my bike in for brakes on Monday',
        'at 10',
        'Sue',
        ["I don't want it on Monday, Tuesday is better", /Tuesday/],
      ],
      slots: { day: '2026-03-10' },
    },
    {
      name: 'a word with somebody',
      lines: ['I want to book a repair', ["can't I just have a word with somebody", /counter/]],
      outcome: 'handed_off',
    },
    {
      name: 'starting again',
      lines: ['can I order a bell', ['can we start again', /start again/]],
      outcome: 'abandoned',
      slots: { part: undefined },
    },
    {
      name: 'a change of mind',
      lines: ['can I order a bell', ['actually forget it, I want to hire a bike instead', /left that.*kind of bike/]],
    },
    {
      name: 'scrapping a value',
      lines: ['can I order two bells', ['scrap that, make it four', /four|4/]],
      slots: { quantity: 4 },
    },
  ],
  'a figure that fits two': [
    {
      name: 'an amount or a house',
      lines: [
        'order two bells by post to 12 Mill Lane, Dunlow',
        ['no its 16', /16.*quantity.*address/],
        ['the address', /Shall I order/],
      ],
      slots: { quantity: 2, address: '16 Mill Lane, Dunlow' },
    },
    {
      name: 'an amount alone',
      lines: ['two bells by post to 12 Mill Lane, Dunlow', ['no, make it 16', /16/]],
      slots: { quantity: 16, address: '12 Mill Lane, Dunlow' },
    },
  ],
  'a no ends things': [
    { name: 'a letter for yes', lines: ['cancel WL-2041', 'y'], outcome: 'completed' },
    {
      name: 'that it is right after all',
      lines: ['cancel WL-2041', ['leave it, it is right', /\w/]],
      outcome: 'completed',
    },
    { name: 'no, keep it', lines: ['cancel WL-2041', ['no, keep it', /left that/], 'ok', 'yes'], outcome: 'cancelled' },
    { name: 'cancelling nothing', lines: ['cancel WL-2041', "don't cancel anything"], outcome: 'cancelled' },
    { name: 'a second no', lines: ['cancel WL-2041', ['no', /change/], 'no'], outcome: 'cancelled' },
    { name: 'nothing', lines: ['cancel WL-2041', 'no', 'nothing'], outcome: 'cancelled' },
    {
      name: 'another request',
      lines: ['can I order a bell', '3', 'collect', ['no I want to cancel repair WL-2041', /Shall I cancel WL-2041/]],
    },
  ],
  'at a read-back': [
    {
      name: 'yes and a question',
      lines: [
        'can I order a bell',
        '1',
        'collect',
        ['yes please, and can you tell me where you are', /P-40001.*Withy Lane/],
      ],
      outcome: 'completed',
    },
    {
      name: 'a question is no yes',
      lines: ['can I order a bell', '1', 'collect', ['ok what will that cost me', /60 pounds.*Shall I order/]],
      outcome: 'abandoned',
    },
    {
      name: 'a question changes nothing',
      lines: [
        'book my bike in for gears on Friday at 10',
        'Sue',
        ['are you sure you close at 6?', /nine to six.*10:00/],
      ],
      slots: { at: '10:00' },
    },
    {
      name: 'fine, but',
      lines: ['can I order three bells', 'collect', ['fine, only one of those', /1 bell/]],
      slots: { quantity: 1 },
      outcome: 'abandoned',
    },
    {
      name: 'the day and the time',
      lines: [
        'book my bike in for gears on Friday at 10',
        'Sue',
        ['no I want to change the day and the at', /day/],
        ['Monday', /time/],
        ['noon', /12:00/],
      ],
      slots: { day: '2026-03-09', at: '12:00' },
    },
    {
      name: 'the same value again',
      lines: [
        'book my bike in for gears on Friday at 10',
        'Sue',
        ['Friday', /Right/],
        ['Friday', /Right/],
        ['Friday', /Right/],
        ['yes', /Booked/],
      ],
      outcome: 'completed',
    },
    {
      name: 'either end of a stretch',
      lines: [
        'I want to hire a tandem from 4 July to 6 July',
        '07700 900123',
        ['no, the 5th', /Which do you mean by “5th”/],
        'the second',
      ],
      slots: { from: '2026-07-04', to: '2026-07-05' },
    },
    {
      name: 'the end that the words tell',
      lines: [
        'I want to hire a tandem from 4 July to 6 July',
        '07700 900123',
        'no',
        ['back on the 8th instead', /8 July/],
      ],
      slots: { from: '2026-07-04', to: '2026-07-08' },
    },
    {
      name: 'a mended value',
      lines: ['can I order a bell', '1', 'collect', "that's better now, yes"],
      outcome: 'completed',
    },
  ],
  'a clarification': [
    { name: 'is not answered by a figure in a sentence', lines: ['can you do my bike', ['1 moment please', /mean/]] },
    { name: 'takes the second for the second', lines: ['can you do my bike', ['the second one', /kind of bike/]] },
    { name: 'takes the name of an option', lines: ['can you do my bike', ['the repair booking', /mean|ticket|doing/]] },
    {
      name: 'is put off by another request and asked again',
      lines: ['can you do my bike', ['where are you', /Withy Lane.*mean/], ['the first', /doing/]],
    },
    {
      name: 'keeps what fits either, says so, and asks again in other words',
      lines: [
        'can you do my bike',
        ['for friday', /^Thank you, I have noted Friday 6 March\. Which do you mean/],
        ['hmm well', /did not follow.*mean.*neither/],
        ['hire', /kind of bike/],
      ],
    },
    { name: 'of both does both', lines: ['can you do my bike', ['both', /doing/]] },
    {
      name: 'is none of the choices',
      lines: ['can you do my bike', ['neither', /did not follow/]],
      outcome: 'abandoned',
    },
  ],
  'free words, names and places': [
    {
      name: 'a name is one, whatever it resembles',
      lines: ['book my bike in for gears on Friday at 10', ['Bill Hire', /for Bill Hire/]],
    },
    {
      name: 'a word that another request is taught with is no name',
      lines: ['book my bike in for gears on Friday at 10', ['Price', /60 pounds.*name/]],
    },
    {
      name: 'are no question',
      lines: [
        'book my bike in for gears on Friday at 10',
        ['why do you need my name?', /need that/],
        ['are you a robot?', /name/],
        'Jo Bell',
      ],
      slots: { customer: 'Jo Bell' },
    },
    {
      name: 'are no refusal',
      lines: ['book my bike in for gears on Friday at 10', ["I'd rather not", /need that/]],
      slots: { customer: undefined },
    },
    {
      name: 'are no correction',
      lines: ['book my bike in for gears on Friday at 10', ['actually make that 5', /17:00/]],
      slots: { customer: undefined, at: '17:00' },
    },
    {
      name: 'are found where utterances mark them',
      lines: ['a full service please, put it under Odette Farrow'],
      slots: { customer: 'Odette Farrow' },
    },
    { name: 'are no other request', lines: ['I want to complain', ['cancel WL-2041', /Shall I cancel WL-2041/]] },
    {
      name: 'are not asked for again',
      lines: [['you ruined my bike and nobody answers the phone', /pass that on/]],
      slots: { what: 'you ruined my bike and nobody answers the phone' },
      outcome: 'handed_off',
    },
  ],
  values: [
    {
      name: 'a figure fills what was asked',
      lines: ['I want to hire a bike', 'the family one', 'Friday', ['8', /telephone/]],
      slots: { bike_kind: 'family tandem', to: '2026-03-08', count: undefined },
    },
    {
      name: 'a sign at the end',
      lines: [['half a dozen inner tubes 26"', /post/]],
      slots: { quantity: 6, wheel_size: '26 inch' },
    },
    { name: 'ten is a time', lines: ['book my bike in for gears on Friday', ['10', /name/]], slots: { at: '10:00' } },
    {
      name: 'one or the other',
      lines: [
        'book my bike in for gears',
        ['Friday or Saturday', /Which is it: Friday 6 March or Saturday 7 March/],
        'the second one',
      ],
      slots: { day: '2026-03-07' },
    },
    {
      name: 'a day that is none',
      lines: ['book my bike in for gears', ['the 31st of February', /no such day/]],
      slots: { day: undefined },
    },
    {
      name: 'a day gone by',
      lines: ['book my bike in for gears', ['yesterday', /gone by/]],
      slots: { day: undefined },
    },
    {
      name: 'weeks are no goods',
      lines: ['can I order a bell', ['the last one took two weeks', /How many/]],
      slots: { quantity: undefined },
    },
    {
      name: 'what grew',
      lines: ['can I order four bells', ['it has grown from four to seven', /post/]],
      slots: { quantity: 7 },
    },
    {
      name: 'half a bell',
      lines: ['can I order a bell', ['half a bell', /whole number/], ['minus five', /at least one/]],
      slots: { quantity: undefined },
    },
    {
      name: 'an end before the beginning',
      lines: ['I want to hire a tandem', 'Friday', ['today', /before it begins/]],
      slots: { to: undefined },
    },
    {
      name: 'both ends of a stretch',
      lines: ['I want to hire a tandem', 'from 4 July to 1 August'],
      slots: { from: '2026-07-04', to: '2026-08-01' },
    },
    {
      name: 'Wednesday, er no',
      lines: ['book my bike in for gears on Wednesday, er no, Thursday'],
      slots: { day: '2026-03-05' },
    },
    {
      name: 'what no longer applies',
      lines: ['can I order a bell', '1', 'post', '12 Mill Road, Dunlow', ['actually I will collect it', /collect/]],
      slots: { address: undefined },
    },
    {
      name: 'what does not apply yet',
      lines: ['can I order a bell to 12 Mill Road, Dunlow', '1', ['by post', /Shall I/]],
      slots: { address: '12 Mill Road, Dunlow' },
    },
    { name: 'a word no list has', lines: ['I want to order a part', ['a carbon fork', /do not know “a carbon fork”/]] },
  ],
  'several wishes': [
    {
      name: 'the first is done and the second offered',
      lines: [
        ['cancel WL-2041 and then I want to hire a bike', /Shall I cancel WL-2041/],
        ['yes', /hire a bike/],
        ['yes', /kind of bike/],
      ],
    },
    {
      name: 'one beside a yes that the bot is unsure of',
      lines: [
        'book my bike in for brakes on Monday',
        'at 10',
        'Sue',
        ['yes, I also want a bike for my son', /Booked.*Which do you mean/],
      ],
    },
    {
      name: 'an address that says how it is to come',
      lines: ['can I order a bell', '1', ['12 Mill Road, Dunlow', /Shall I order/]],
      slots: { address: '12 Mill Road, Dunlow' },
    },
    {
      name: 'an answer on the way',
      lines: [["I'd like to order a bell and can you tell me where you are", /Withy Lane.*How many/]],
    },
    {
      name: 'the same as before',
      lines: [
        'can I order a bell',
        '1',
        'post',
        '12 Mill Road, Dunlow',
        'yes',
        'another bell please',
        '1',
        'post',
        ['same address as before', /Shall I order/],
        ['yes', /P-40002/],
      ],
      slots: { address: '12 Mill Road, Dunlow' },
    },
    {
      name: 'a form that a misread message opened',
      lines: ['can I order two bells', 'can I drop it off on Tuesday', ['collect', /2 bell, collect/]],
    },
  ],
  'a reason': [
    {
      name: 'asks for nothing, whatever it resembles',
      lines: ['can I order two bells', ['cos mine is broken and I want to complain', /By post/]],
      slots: { part: 'bell', quantity: 2 },
    },
  ],
  'several things': [
    {
      name: 'that do not pair off',
      lines: [['chains and two tyres', /one thing at a time. First chains/]],
      slots: { part: 'chain', quantity: undefined },
    },
    {
      name: 'of which one is said to be one',
      lines: ['a chain and two tyres'],
      slots: { part: ['chain', 'tyre'], quantity: [1, 2] },
    },
    {
      name: 'that are added, put right and taken off',
      lines: [
        'order two bells',
        ['and three chains as well', /two bells and three chains|2 bell and 3 chain/i],
        ['no, four chains', /2 bell and 4 chain/],
        ['oh also a saddle', /2 bell, 4 chain and 1 saddle/],
        ['and two more bells', /4 bell, 4 chain and 1 saddle/],
        ['swap the saddle for a lock', /4 bell, 4 chain and 1 lock/],
        ['without the chains', /4 bell and 1 lock/],
      ],
      slots: { part: ['bell', 'lock'], quantity: [4, 1] },
    },
    {
      name: 'one of which is more of the same',
      lines: ['order two bells', ['and another three bells', /5/]],
      slots: { part: 'bell', quantity: 5 },
    },
    {
      name: 'of which one is added and not counted',
      lines: ['order two bells', ['and chains too', /one thing at a time. First 2 bell/]],
      slots: { part: 'bell', quantity: 2 },
    },
    {
      name: 'that pair off',
      lines: ['order two bells and three chains'],
      slots: { part: ['bell', 'chain'], quantity: [2, 3] },
    },
    {
      name: 'of which one is left',
      lines: ['order two bells and three chains', 'just the chains'],
      slots: { part: 'chain', quantity: 3 },
    },
    {
      name: 'one after the other',
      lines: ['book my bike in for brakes on Monday', ['and the gears too', /brakes and gears/]],
      slots: { work: ['brakes', 'gears'] },
    },
    {
      name: 'one in the place of the other',
      lines: ['book my bike in for brakes on Monday', 'the gears instead'],
      slots: { work: 'gears' },
    },
  ],
  'after a handover': [
    {
      name: 'the bot says so once',
      lines: ['get me a human', ['are you there', /with a colleague/], ['blah', /^$/]],
      outcome: 'handed_off',
    },
  ],
});
