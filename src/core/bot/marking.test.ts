import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MarkingError, readMarking, renameMarks, withMark, writeMarking } from './marking.js';

describe('inline marking', () => {
  it('reads marks as offsets of the plain text', () => {
    expect(readMarking('two <plant>lavender</plant> for <when>Friday</when>')).toEqual({
      text: 'two lavender for Friday',
      marks: [
        { slot: 'plant', start: 4, end: 12 },
        { slot: 'when', start: 17, end: 23 },
      ],
    });
  });

  it('writes any text so that it reads back the same', () => {
    const text = fc.string({ unit: 'binary', minLength: 1, maxLength: 40 });
    fc.assert(
      fc.property(text, fc.nat(), fc.nat(), (plain, a, b) => {
        const [start, end] = [
          Math.min(a % plain.length, b % plain.length),
          Math.max(a % plain.length, b % plain.length) + 1,
        ];
        const marked = { text: plain, marks: [{ slot: 'plant', start, end }] };
        expect(readMarking(writeMarking(marked))).toEqual(marked);
      }),
    );
  });

  it('takes < and & that begin no tag as themselves', () => {
    expect(readMarking('3 < 4 & tea').text).toBe('3 < 4 & tea');
    expect(readMarking('3 &lt; 4 &amp; tea').text).toBe('3 < 4 & tea');
  });

  it.each([
    ['<plant>rose', /<plant> is not closed/],
    ['rose</plant>', /closes a mark that was not opened/],
    ['<plant><size>big</size></plant>', /<size> opens inside <plant>/],
    ['<plant></plant>', /marks no words/],
  ])('refuses %s', (source, message) => {
    expect(() => readMarking(source)).toThrow(MarkingError);
    expect(() => readMarking(source)).toThrow(message);
  });

  it('takes away the marks that a new one overlaps', () => {
    const marked = readMarking('a <size>big</size> <plant>rose bush</plant>');
    const next = withMark(marked, { slot: 'plant', start: 2, end: 10 });
    expect(next.marks).toEqual([{ slot: 'plant', start: 2, end: 10 }]);
  });

  it('renames marks and takes them away', () => {
    const marked = { id: 'u1', ...readMarking('two <plant>roses</plant>') };
    expect(renameMarks(marked, 'plant', 'item')).toEqual({ id: 'u1', ...readMarking('two <item>roses</item>') });
    expect(renameMarks(marked, 'plant', null)).toEqual({ id: 'u1', ...readMarking('two roses') });
    expect(renameMarks(marked, 'size', 'item')).toBe(marked);
  });
});
