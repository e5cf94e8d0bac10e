import { parse } from 'csv-parse/sync';
import { XMLParser } from 'fast-xml-parser';
import { describe, expect, it } from 'vitest';
import { lineResult } from '../../../tests/lineResult.js';
import type { LineResult } from '../measure/evaluate.js';
import { writeRunCsv, writeRunJUnit } from './runFile.js';

const line = (text: string, more: Partial<LineResult> = {}) =>
  lineResult(text, 'order', 'order', { confidence: 0.91234, ...more });
const RESULTS = [
  line('two roses, "red" & <white>\nplease'),
  line('=1+1', { predicted: 'cancel', place: 2 }),
  line('a joke', { expected: null, predicted: 'order', decision: 'none', confidence: 0.1 }),
  line('taught \u0001\uD800', { taught: true, style: 'terse' }),
  line('who knows', { expected: undefined }),
];

describe('a run as a table', () => {
  it('has every line with what came of it, and no formula', () => {
    const rows = parse(writeRunCsv(RESULTS), { columns: true });
    expect(rows).toHaveLength(5);
    expect(rows[0]).toEqual({
      text: 'two roses, "red" & <white>\nplease',
      expected: 'order',
      'read as': 'order',
      confidence: '0.9123',
      decision: 'accept',
      outcome: 'right',
      style: '',
    });
    expect(rows[1]).toMatchObject({ text: "'=1+1", 'read as': 'cancel', outcome: 'wrong and accepted' });
    expect(rows[2]).toMatchObject({ expected: 'out of scope', outcome: 'right' });
    expect(rows[3]).toMatchObject({ outcome: 'also taught', style: 'terse' });
    expect(rows[4]).toMatchObject({ expected: 'not labelled', outcome: '' });
  });
});

describe('a run for build servers', () => {
  it('has a case for each line, failed and skipped as it came out', () => {
    const xml = writeRunJUnit('by "hand" & <more>', RESULTS);
    const { testsuite } = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '@' }).parse(xml) as {
      testsuite: Record<string, unknown> & { testcase: Record<string, Record<string, string> | string>[] };
    };
    expect(testsuite).toMatchObject({
      '@name': 'by "hand" & <more>',
      '@tests': '5',
      '@failures': '1',
      '@skipped': '2',
    });
    const [right, wrong, outside, taught, unlabelled] = testsuite.testcase;
    expect(right).toEqual({ '@name': expect.stringContaining('& <white>') as string, '@classname': 'order' });
    expect(wrong!['failure']).toEqual({
      '@message': 'is order, read as cancel (0.91, accept)',
      '@type': 'wrong and accepted',
    });
    expect(outside).toEqual({ '@name': 'a joke', '@classname': 'out of scope' });
    expect(taught).toMatchObject({ '@name': 'taught \uFFFD\uFFFD', skipped: { '@message': 'the bot was taught it' } });
    expect(unlabelled!['skipped']).toEqual({ '@message': 'has no label' });
  });
});
