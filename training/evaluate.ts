/**
 * Measures the recogniser on trades that its encoder did not learn from; its constants were chosen on them.
 *
 * Use: npx tsx training/evaluate.ts [--kept FILE] [--bot NAME BOT TEST]…
 * `--kept`: a file that vectors are kept in for the next time.
 */
import { measure, readLines, type Evaluation, type LineResult } from '../src/core/measure/evaluate.js';
import { encodeWith, teach } from '../src/core/recognise/answer.js';
import { openRecogniser } from '../src/core/recognise/open.js';
import { keeping } from './kept.js';
import { KEPT_APART, tradesKeptApart } from './trades.js';
import { NOW, readOptions } from './trials.js';

/** The largest share of messages in scope that can be accepted, the surest first, with so many accepted ones right. */
function acceptedAt(results: readonly LineResult[], precision: number): number {
  const inScope = results.filter(({ expected }) => expected !== null).length;
  let [right, share] = [0, 0];
  [...results]
    .sort((a, b) => b.confidence - a.confidence)
    .forEach((result, at) => {
      if (result.expected !== null && result.predicted === result.expected) right++;
      if (right / (at + 1) >= precision) share = (at + 1) / inScope;
    });
  return share;
}

type Figures = Record<string, number>;

function figuresOf(evaluation: Evaluation, results: readonly LineResult[]): Figures {
  const { gate } = evaluation;
  return {
    first: evaluation.accuracy ?? NaN,
    three: evaluation.topThree ?? NaN,
    area: evaluation.auroc ?? NaN,
    error: evaluation.calibrationError ?? NaN,
    overall: evaluation.calibrationErrorOverall ?? NaN,
    'at .97': acceptedAt(results, 0.97),
    accepted: gate.acceptedInScope ?? NaN,
    right: gate.acceptedPrecision ?? NaN,
    'out kept': gate.outOfScopeRecall ?? NaN,
    ...Object.fromEntries(evaluation.styles.map(({ style, accuracy }) => [style, accuracy ?? NaN])),
  };
}

const COLUMNS = ['first', 'three', 'area', 'error', 'overall', 'at .97', 'accepted', 'right', 'out kept'];
const STYLES = ['plain', 'long', 'terse', 'spoken', 'typo'];

function show(name: string, figures: Figures): string {
  const cells = [...COLUMNS, ...STYLES].map((column) => (figures[column] ?? NaN).toFixed(3).padStart(9));
  return name.padEnd(28) + cells.join('');
}

function mean(all: readonly Figures[]): Figures {
  const names = [...new Set(all.flatMap((figures) => Object.keys(figures)))];
  const of = (name: string) => all.flatMap((figures) => figures[name] ?? []).filter((value) => !Number.isNaN(value));
  return Object.fromEntries(
    names.map((name) => [name, of(name).reduce((sum, value) => sum + value, 0) / of(name).length]),
  );
}

const given = readOptions(process.argv.slice(2));
const { encoder, keep } = await keeping(given.kept);
const encode = encodeWith(encoder);
console.log(' '.repeat(28) + [...COLUMNS, ...STYLES].map((column) => column.padStart(9)).join(''));
const apart: Figures[] = [];
const together: { results: LineResult[]; names: string[] } = { results: [], names: [] };
for (const { name, document, lines } of [...tradesKeptApart(), ...given.trials]) {
  const recogniser = openRecogniser(document, await teach(document, encode));
  const results = await readLines(recogniser, lines, { now: NOW, taught: new Set(), encode });
  const names = document.intents.map((intent) => intent.name);
  const figures = figuresOf(measure(results, names), results);
  if (KEPT_APART.includes(name)) {
    apart.push(figures);
    together.results.push(...results);
    together.names.push(...names);
  }
  console.log(show(name, figures));
  if (apart.length === KEPT_APART.length && KEPT_APART.at(-1) === name) {
    console.log(show('MEAN OF KEPT APART', mean(apart)));
    // Of a hundred lines chance alone gives an error of seven hundredths; of all together, next to none.
    const all = figuresOf(measure(together.results, together.names), together.results);
    console.log(show('ALL THEIR LINES TOGETHER', all));
  }
}
keep();
