import { splitParts } from '../core/bot/pasted.js';
import { DEFAULT_COSTS, type BotDocument, type GateCosts } from '../core/bot/document.js';
import type { TestLine } from '../core/formats/testFile.js';
import { languageOf } from '../core/language/index.js';
import type { Language } from '../core/language/language.js';
import { NOISES } from '../core/noise/index.js';
import { noiseTrial, noisyLines, type NoiseTrial } from '../core/measure/noiseTrial.js';
import { compareRuns, comparisonInWords, type RunComparison } from '../core/measure/compare.js';
import { measure, readLines, taughtMessages, type Evaluation, type LineResult } from '../core/measure/evaluate.js';
import { countConsequences, gatedMessages, type Consequences } from '../core/measure/levels.js';
import { gateOf, type Gate } from '../core/recognise/gate.js';
import { recommendGate, type Recommendation } from '../core/measure/recommend.js';
import { localNow } from '../server/time.js';
import { readyBot } from './bot.js';
import { loadBotFile, loadTestFile, UsageError } from './files.js';

/** Recommended levels, with what the lines come to by them. */
type Told = Recommendation & { consequences: Record<'now' | 'then', Consequences> };

/** What is told of a test file. */
export interface FileEvaluation {
  evaluation: Evaluation;
  results: LineResult[];
  comparison?: RunComparison;
  noise?: NoiseTrial[];
  /** The levels that cost least, and beside them those by which most is accepted. */
  recommendation?: Told & { mostAccepted: Told };
}

/** What is told besides the measures. */
export interface EvaluationExtras {
  /** Another state of the bot, that reads the same lines first. */
  compare?: string | undefined;
  /** How strong the noise is that the lines are read with as well, 0..1. */
  noise?: number | undefined;
  /** Recommend levels for these costs. */
  costs?: GateCosts | undefined;
}

/** The figures are the same each time. */
const SEED = 1;

type ReadAll = (lines: readonly TestLine[]) => Promise<LineResult[]>;

async function readerOf(document: BotDocument): Promise<ReadAll> {
  const { recogniser, encode } = await readyBot(document);
  const settings = { now: localNow(document.timeZone), taught: taughtMessages(document), encode };
  return (lines) => readLines(recogniser, lines, settings);
}

/** Reads the lines with each noise in them. @param clean how they are read without */
async function tryNoises(
  read: ReadAll,
  {
    lines,
    clean,
    strength,
    language,
  }: { lines: TestLine[]; clean: LineResult[]; strength: number; language: Language },
): Promise<NoiseTrial[]> {
  const trials: NoiseTrial[] = [];
  for (const noise of NOISES) {
    const noisy = await read(noisyLines(lines, noise, { strength, seed: SEED, language }));
    trials.push(noiseTrial(noise, clean, noisy, SEED));
  }
  return trials;
}

/** Measures a test file against a bot file. */
export async function evaluateFiles(
  botFile: string,
  testFile: string,
  { compare, costs, noise }: EvaluationExtras = {},
): Promise<FileEvaluation> {
  const document = loadBotFile(botFile);
  const lines = loadTestFile(testFile);
  const before = compare === undefined ? null : loadBotFile(compare);
  const read = await readerOf(document);
  const results = await read(lines);
  const evaluation = measure(
    results,
    document.intents.map((intent) => intent.name),
  );
  return {
    evaluation,
    results,
    ...(before && { comparison: compareRuns(await (await readerOf(before))(lines), results, SEED) }),
    ...(noise !== undefined && {
      noise: await tryNoises(read, { lines, clean: results, strength: noise, language: languageOf(document) }),
    }),
    ...(costs && { recommendation: recommend(results, gateOf(document), costs) }),
  };
}

function recommend(
  results: readonly LineResult[],
  gate: Gate,
  costs: GateCosts,
): NonNullable<FileEvaluation['recommendation']> {
  const messages = gatedMessages(results);
  const now = countConsequences(messages, gate);
  const told = (recommendation: Recommendation): Told => ({
    ...recommendation,
    consequences: { now, then: countConsequences(messages, recommendation.gate) },
  });
  const { cheapest, mostAccepted } = recommendGate(messages, gate, { costs, seed: SEED });
  return { ...told(cheapest), mostAccepted: told(mostAccepted) };
}

/**
 * Reads costs such as `wrongAct=20,question=1`; what is left out costs what it does by default.
 * @throws UsageError where a cost is not known or no number
 */
export function readCosts(text: string): GateCosts {
  const costs = { ...DEFAULT_COSTS };
  const isCost = (name: string): name is keyof GateCosts => Object.hasOwn(costs, name);
  for (const part of splitParts(text)) {
    const [name = '', amount = ''] = part.split('=').map((side) => side.trim());
    if (!isCost(name))
      throw new UsageError(
        `--costs knows ${Object.keys(costs).join(', ')}, not "${name}". Write wrongAct=20,question=1.`,
      );
    const cost = amount === '' ? NaN : Number(amount);
    if (!(cost >= 0)) throw new UsageError(`--costs: ${name} must be a number from 0 on, not "${amount}".`);
    costs[name] = cost;
  }
  return costs;
}

const percent = (share: number | null): string => (share === null ? '–' : `${(share * 100).toFixed(1)} %`);
const decimal = (figure: number | null): string => (figure === null ? '–' : figure.toFixed(3));

function showRecommendation(name: string, { gate, now, then, saving, consequences }: Told) {
  const forms = gate.acceptForms === undefined ? '' : `, forms that are read back ${gate.acceptForms.toFixed(2)}`;
  const levels = `accept ${gate.accept.toFixed(2)}${forms}, ask ${gate.ask.toFixed(2)}, lead ${gate.lead.toFixed(2)}`;
  const names = Object.keys(consequences.now) as (keyof Consequences)[];
  return [
    '',
    `${name.padEnd(26)}${levels}`,
    `cost of a message         ${now.toFixed(3)} now, ${then.toFixed(3)} then`,
    ...(saving
      ? [
          `saving                    ${saving.figure.toFixed(3)}, between ${saving.low.toFixed(3)} and ${saving.high.toFixed(3)} on other messages like these`,
        ]
      : []),
    ...names.map(
      (name) => `  ${name.padEnd(30)}${String(consequences.now[name]).padStart(5)} → ${consequences.then[name]}`,
    ),
  ];
}

function showComparison(comparison: RunComparison): string[] {
  const list = (what: string, lines: readonly LineResult[]) =>
    lines.map(
      ({ text, expected, predicted }) =>
        `  ${what}  ${expected ?? 'out of scope'}, read as ${predicted ?? 'nothing'}: ${text}`,
    );
  return [
    '',
    comparisonInWords(comparison),
    ...list('mended', comparison.mended),
    ...list('broken', comparison.broken),
  ];
}

function showNoise(trials: readonly NoiseTrial[]): string[] {
  const width = Math.max(...trials.map(({ noise }) => noise.length));
  return [
    '',
    `${'noise'.padEnd(width)}   right  then   change (95 %)         sure and wrong  most lost by`,
    ...trials.map(({ noise, before, after, change, sureAndWrong, worst }) => {
      const points = (figure: number | undefined) => ((figure ?? 0) * 100).toFixed(1);
      const bounds = `${points(change?.figure)} (${points(change?.low)} to ${points(change?.high)})`;
      const lost = worst
        .map((intent) => `${intent.intent ?? 'out of scope'} ${intent.after - intent.before}`)
        .join(', ');
      return `${noise.padEnd(width)}   ${decimal(before)}  ${decimal(after)}  ${bounds.padEnd(22)}${String(sureAndWrong.before).padStart(5)} → ${String(sureAndWrong.after).padEnd(6)}  ${lost}`;
    }),
  ];
}

/** The measures as a table for people. */
export function showEvaluation({
  evaluation,
  comparison,
  noise,
  recommendation,
}: Omit<FileEvaluation, 'results'>): string {
  const { gate, macro } = evaluation;
  const width = Math.max(...evaluation.intents.map(({ intent }) => intent.length), 6);
  return [
    `${evaluation.lines} lines: ${evaluation.inScope} in scope, ${evaluation.outOfScope} out of scope${evaluation.taught > 0 ? `; ${evaluation.taught} more were also taught and are left out` : ''}`,
    `accuracy                  ${decimal(evaluation.accuracy)}`,
    `among the first three     ${decimal(evaluation.topThree)}`,
    `macro precision, recall   ${decimal(macro.precision)}  ${decimal(macro.recall)}`,
    `macro F1, weighted        ${decimal(macro.f1)}  ${decimal(evaluation.weightedF1)}`,
    `kappa                     ${decimal(evaluation.kappa)}`,
    `AUROC in against out      ${decimal(evaluation.auroc)}`,
    `calibration error         ${decimal(evaluation.calibrationError)} in scope, ${decimal(evaluation.calibrationErrorOverall)} over all`,
    `slot F1 exact, partial    ${decimal(evaluation.slotF1)}  ${decimal(evaluation.slots?.partial ?? null)}; by value ${decimal(evaluation.slots?.byValue ?? null)}`,
    `entity F1 exact, partial  ${decimal(evaluation.slots?.entityExact ?? null)}  ${decimal(evaluation.slots?.entityPartial ?? null)}`,
    `accepted                  ${gate.accepted}, right of these ${percent(gate.acceptedPrecision)}; of those in scope ${percent(gate.acceptedInScope)}`,
    `asked about, not matched  ${gate.asked}, ${gate.none}`,
    `out of scope not matched  ${percent(gate.outOfScopeRecall)}`,
    ...(evaluation.tags ?? []).map(
      ({ tag, value, lines, accuracy }) => `  ${`${tag} ${value}`.padEnd(24)}${decimal(accuracy)}  of ${lines}`,
    ),
    ...evaluation.styles.map(({ style, lines, accuracy }) => `  ${style.padEnd(24)}${decimal(accuracy)}  of ${lines}`),
    '',
    `${'intent'.padEnd(width)}  lines  precision  recall     F1`,
    ...evaluation.intents.map(
      ({ intent, support, precision, recall, f1 }) =>
        `${intent.padEnd(width)}  ${String(support).padStart(5)}  ${decimal(precision).padStart(9)}  ${decimal(recall).padStart(6)}  ${decimal(f1).padStart(5)}`,
    ),
    ...(comparison ? showComparison(comparison) : []),
    ...(noise ? showNoise(noise) : []),
    ...(recommendation
      ? [
          ...showRecommendation('recommended levels', recommendation),
          ...showRecommendation('accepting most for less', recommendation.mostAccepted),
        ]
      : []),
  ].join('\n');
}
