import { describe, expect, it } from 'vitest';
import { readTestFile } from './testFile.js';

function linesOf(source: string) {
  const result = readTestFile(source);
  if (!result.ok) throw new Error(JSON.stringify(result.faults));
  return result.lines;
}

function faultsOf(source: string) {
  const result = readTestFile(source);
  return result.ok ? [] : result.faults;
}

describe('readTestFile', () => {
  it('reads JSONL with slots, time and style', () => {
    const line = {
      text: '2 roses',
      intent: 'order',
      now: '2026-03-04T09:30',
      slots: [{ slot: 'n', start: 0, end: 1, value: 2 }],
      style: 'terse',
    };
    expect(linesOf(`${JSON.stringify(line)}\n\n{"text":"hm","intent":null}\n`)).toEqual([
      line,
      { text: 'hm', intent: null },
    ]);
  });

  it('reads CSV and TSV with inline tags; an empty intent is out of scope', () => {
    expect(linesOf('intent,text\norder,"two <plant>roses</plant>, please"\n,what is the time\n')).toEqual([
      { intent: 'order', text: 'two roses, please', slots: [{ slot: 'plant', start: 4, end: 9 }] },
      { intent: null, text: 'what is the time' },
    ]);
    expect(linesOf('text\tintent\nhello "you" there\tgreet\n')).toEqual([
      { text: 'hello "you" there', intent: 'greet' },
    ]);
  });

  it('takes what lines tell of where they come from', () => {
    expect(linesOf('text,intent,channel,source,language\nhi,greet,chat,,en\n')).toEqual([
      { text: 'hi', intent: 'greet', tags: { channel: 'chat', language: 'en' } },
    ]);
  });

  it('tells a line that does not judge from one that is out of scope', () => {
    expect(linesOf('{"text":"a"}\n{"text":"b","intent":null}')).toEqual([{ text: 'a' }, { text: 'b', intent: null }]);
  });

  it('lists every fault with its line', () => {
    expect(
      faultsOf('{"text":"a","intent":"x"}\n{"intent":"x"}\nnot json\n{"text":"b","intent":4}').map(
        (fault) => fault.path,
      ),
    ).toEqual(['line 2', 'line 3', 'line 4']);
  });

  it.each([
    ['an empty file', '', /the file is empty/],
    ['a table without texts', 'message,intent\nhi,greet\n', /no column "text"; the columns are: message, intent/],
    ['a time that is none', '{"text":"a","now":"tomorrow"}', /"now" must be a local time/],
    ['slots beyond the text', '{"text":"abc","slots":[{"slot":"s","start":1,"end":9}]}', /do not lie within/],
    ['tags left open', 'text,intent\n<plant>rose,order\n', /is not closed/],
    ['a row of the wrong length', 'text,intent\na,b,c\n', /./],
    ['a header and nothing else', 'text,intent\n', /holds no lines/],
  ])('refuses %s', (_, source, message) => {
    const faults = faultsOf(source);
    expect(faults.length).toBeGreaterThan(0);
    expect(faults[0]!.message).toMatch(message);
  });
});
