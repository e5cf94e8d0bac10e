import { stringify } from 'csv-stringify/sync';
import { XMLBuilder } from 'fast-xml-parser';
import { isCounted, isRight, verdict, type LineResult } from '../measure/evaluate.js';

const labelOf = (intent: string | null | undefined): string =>
  intent === null ? 'out of scope' : (intent ?? 'not labelled');

/** The lines of a run as a table: what each is, what it was read as, how surely, and what came of it. */
export function writeRunCsv(results: readonly LineResult[]): string {
  const rows = results.map((result) => ({
    text: result.text,
    expected: labelOf(result.expected),
    'read as': result.predicted ?? '',
    confidence: result.confidence.toFixed(4),
    decision: result.decision,
    outcome: result.taught ? 'also taught' : result.expected === undefined ? '' : verdict(result),
    style: result.style ?? '',
  }));
  const columns = ['text', 'expected', 'read as', 'confidence', 'decision', 'outcome', 'style'];
  return stringify(rows, { header: true, columns, escape_formulas: true });
}

/** What a text may not hold in XML 1.0, whatever is done to it. */
const NOT_IN_XML = /[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD\u{10000}-\u{10FFFF}]/gu;
const plain = (text: string): string => text.replace(NOT_IN_XML, '\uFFFD');

/**
 * A run as build servers read it (JUnit XML): each line that counts is a test case, of the intent that it ought to have;
 * those that do not count are skipped.
 * @param name of the test set
 */
export function writeRunJUnit(name: string, results: readonly LineResult[]): string {
  const cases = results.map((result) => {
    const { text, expected, predicted, confidence, decision } = result;
    const read = `read as ${predicted ?? 'nothing'} (${confidence.toFixed(2)}, ${decision})`;
    return {
      '@name': plain(text),
      '@classname': plain(labelOf(expected)),
      ...(!isCounted(result) && { skipped: { '@message': result.taught ? 'the bot was taught it' : 'has no label' } }),
      ...(isCounted(result) &&
        !isRight(result) && {
          failure: { '@message': plain(`is ${labelOf(expected)}, ${read}`), '@type': verdict(result) },
        }),
    };
  });
  const builder = new XMLBuilder({ ignoreAttributes: false, attributeNamePrefix: '@', format: true });
  return builder.build({
    '?xml': { '@version': '1.0', '@encoding': 'UTF-8' },
    testsuite: {
      '@name': plain(name),
      '@tests': results.length,
      '@failures': cases.filter((one) => 'failure' in one).length,
      '@skipped': cases.filter((one) => 'skipped' in one).length,
      testcase: cases,
    },
  });
}
