import { describe, expect, it } from 'vitest';
import { joinParts, listLines, readPasted, splitParts } from './pasted.js';

describe('pasted lines', () => {
  it('lose the bullets and numbers of a list', () => {
    expect(listLines('- one\n• two\r\n3. three\n(4) four\n\n  ')).toEqual(['one', 'two', 'three', 'four']);
    expect(listLines('2. floor please')).toEqual(['2. floor please']);
    expect(listLines('- just the one')).toEqual(['just the one']);
  });

  it('are kept one by one, and unknown tags are plain words', () => {
    expect(
      readPasted('a <tea>mint</tea>\nreally <b>now</b>\nI <3 tea\n<tea>open\n<taa>mint</taa>', ['tea', 'business']),
    ).toEqual({
      good: ['a <tea>mint</tea>', 'really &lt;b>now&lt;/b>', 'I <3 tea'],
      bad: [
        { line: '<tea>open', reason: '<tea> is not closed; add </tea>' },
        { line: '<taa>mint</taa>', reason: 'there is no slot or entity "taa"; did you mean "tea"?' },
      ],
    });
  });

  it('have parts that may hold commas in quotes', () => {
    for (const parts of [['tea'], ['lemon, ginger', 'mint'], ['26"', 'a "b"']]) {
      expect(splitParts(joinParts(parts))).toEqual(parts);
    }
    expect(splitParts('white tea, silver needle,, ')).toEqual(['white tea', 'silver needle']);
  });
});
