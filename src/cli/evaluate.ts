import { measure, readLines, taughtMessages, type Evaluation } from '../core/measure/evaluate.js';
import { localNow } from '../server/time.js';
import { readyBot } from './bot.js';
import { loadBotFile, loadTestFile } from './files.js';

/** Measures a test file against a bot file. */
export async function evaluateFiles(botFile: string, testFile: string): Promise<Evaluation> {
  const document = loadBotFile(botFile);
  const lines = loadTestFile(testFile);
  const { recogniser, encode } = await readyBot(document);
  const now = localNow(document.timeZone);
  const taught = taughtMessages(document);
  const results = await readLines(recogniser, lines, { now, taught, encode });
  return measure(
    results,
    document.intents.map((intent) => intent.name),
  );
}

const percent = (share: number | null): string => (share === null ? '–' : `${(share * 100).toFixed(1)} %`);
const decimal = (figure: number | null): string => (figure === null ? '–' : figure.toFixed(3));

/** The measures as a table for people. */
export function showEvaluation(evaluation: Evaluation): string {
  const { gate, macro } = evaluation;
  const width = Math.max(...evaluation.intents.map(({ intent }) => intent.length), 6);
  return [
    `${evaluation.lines} lines: ${evaluation.inScope} in scope, ${evaluation.outOfScope} out of scope${evaluation.taught > 0 ? `; ${evaluation.taught} more were also taught and are left out` : ''}`,
    `accuracy                  ${decimal(evaluation.accuracy)}`,
    `among the first three     ${decimal(evaluation.topThree)}`,
    `macro precision, recall   ${decimal(macro.precision)}  ${decimal(macro.recall)}`,
    `macro F1                  ${decimal(macro.f1)}`,
    `AUROC in against out      ${decimal(evaluation.auroc)}`,
    `calibration error         ${decimal(evaluation.calibrationError)} in scope, ${decimal(evaluation.calibrationErrorOverall)} over all`,
    `slot F1 (exact)           ${decimal(evaluation.slotF1)}`,
    `accepted                  ${gate.accepted}, right of these ${percent(gate.acceptedPrecision)}; of those in scope ${percent(gate.acceptedInScope)}`,
    `asked about, not matched  ${gate.asked}, ${gate.none}`,
    `out of scope not matched  ${percent(gate.outOfScopeRecall)}`,
    ...evaluation.styles.map(({ style, lines, accuracy }) => `  ${style.padEnd(24)}${decimal(accuracy)}  of ${lines}`),
    '',
    `${'intent'.padEnd(width)}  lines  precision  recall     F1`,
    ...evaluation.intents.map(
      ({ intent, support, precision, recall, f1 }) =>
        `${intent.padEnd(width)}  ${String(support).padStart(5)}  ${decimal(precision).padStart(9)}  ${decimal(recall).padStart(6)}  ${decimal(f1).padStart(5)}`,
    ),
  ].join('\n');
}
