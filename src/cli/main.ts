import { writeFileSync } from 'node:fs';
import { Command, CommanderError } from 'commander';
import { writeRunJUnit } from '../core/formats/runFile.js';
import { lockFolder } from '../server/database/lock.js';
import { makePrivateFolder } from '../server/database/open.js';
import { databaseFile } from '../server/paths.js';
import { StartError, troubleOf } from '../server/trouble.js';
import { converseFile, showWalkthroughs } from './converse.js';
import { evaluateFiles, readCosts, showEvaluation } from './evaluate.js';
import { UsageError } from './files.js';
import { recogniseFile } from './recognise.js';
import { seedDemo } from './seed.js';

interface EvaluateOptions {
  bot: string;
  test: string;
  json?: boolean;
  minAccuracy?: string;
  junit?: string;
  noise?: string;
  compare?: string;
  recommend?: boolean;
  costs?: string;
}

const LOCAL_TIME = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2})?$/;

const program = new Command('reed').exitOverride().showHelpAfterError();

program
  .command('recognise')
  .description('a line of JSON for each message')
  .requiredOption('--bot <file>', 'bot file, JSON or YAML')
  .requiredOption('--in <file>', 'messages: JSONL, CSV or TSV with a column "text"')
  .option('--out <file>', 'where to write; standard output if left out')
  .option('--now <time>', 'local ISO time that relative dates are reckoned from')
  .action(async (options: { bot: string; in: string; out?: string; now?: string }) => {
    if (options.now !== undefined && !LOCAL_TIME.test(options.now)) {
      throw new UsageError(`--now must be a local time such as 2026-03-04T09:30, not "${options.now}".`);
    }
    const lines = await recogniseFile(options.bot, options.in, options.now);
    const text = `${lines.join('\n')}\n`;
    if (options.out === undefined) process.stdout.write(text);
    else writeFileSync(options.out, text);
  });

program
  .command('evaluate')
  .description('the measures of a test file')
  .requiredOption('--bot <file>', 'bot file, JSON or YAML')
  .requiredOption('--test <file>', 'test lines: JSONL, CSV or TSV')
  .option('--json', 'measures as JSON')
  .option('--min-accuracy <share>', 'exit with 1 below this accuracy, 0..1')
  .option('--junit <file>', 'write the lines as test cases for a build server, JUnit XML')
  .option('--noise <strength>', 'read the lines with each kind of noise as well, 0..1')
  .option('--compare <file>', 'bot file of before: what was mended and broken since')
  .option('--recommend', 'the levels of the gate that cost least on these lines')
  .option('--costs <list>', 'for --recommend: wrongAct=8,question=1,missed=3,outsideAct=6')
  .action(async (options: EvaluateOptions) => {
    const least = options.minAccuracy === undefined ? null : Number(options.minAccuracy);
    if (least !== null && !(least >= 0 && least <= 1)) {
      throw new UsageError(`--min-accuracy must be a number between 0 and 1, not "${options.minAccuracy}".`);
    }
    if (options.costs !== undefined && !options.recommend) throw new UsageError('--costs is for --recommend.');
    const noise = options.noise === undefined ? undefined : Number(options.noise);
    if (noise !== undefined && !(noise > 0 && noise <= 1))
      throw new UsageError(`--noise must be a number above 0, up to 1, not "${options.noise}".`);
    const costs = options.recommend ? readCosts(options.costs ?? '') : undefined;
    const told = await evaluateFiles(options.bot, options.test, { compare: options.compare, costs, noise });
    const { evaluation, results, ...extras } = told;
    if (options.junit !== undefined) writeFileSync(options.junit, writeRunJUnit(options.test, results));
    console.log(options.json ? JSON.stringify({ ...evaluation, ...extras }, null, 2) : showEvaluation(told));
    if (least !== null && (evaluation.accuracy ?? 0) < least) {
      console.error(`The accuracy is ${evaluation.accuracy?.toFixed(3) ?? 'unknown'}, below ${least}.`);
      process.exitCode = 1;
    }
  });

program
  .command('converse')
  .description('runs walkthroughs')
  .requiredOption('--bot <file>', 'bot file, JSON or YAML')
  .requiredOption('--walkthroughs <file>', 'walkthroughs, JSON')
  .option('--json', 'results as JSON')
  .action(async (options: { bot: string; walkthroughs: string; json?: boolean }) => {
    const results = await converseFile(options.bot, options.walkthroughs);
    const plain = results.map(({ name, outcome, slots, passed, transcript }) => ({
      name,
      outcome,
      slots,
      passed,
      transcript,
    }));
    console.log(options.json ? JSON.stringify(plain, null, 2) : showWalkthroughs(results));
    if (results.some((result) => !result.passed)) process.exitCode = 1;
  });

program
  .command('seed', { hidden: true })
  .requiredOption('--demo <folder>')
  .requiredOption('--data <folder>')
  .action(async (options: { demo: string; data: string }) => {
    makePrivateFolder(options.data);
    const lock = lockFolder(options.data, `process ${process.pid}, filling in the demo`);
    try {
      await seedDemo(options.demo, databaseFile(options.data), (text) => console.error(text));
    } finally {
      lock.release();
    }
  });

try {
  await program.parseAsync();
} catch (error) {
  if (error instanceof UsageError) {
    console.error(error.message);
    process.exitCode = 2;
  } else if (error instanceof StartError || troubleOf(error) !== null) {
    console.error(error instanceof StartError ? error.message : troubleOf(error));
    process.exitCode = 3;
  } else if (error instanceof CommanderError) {
    process.exitCode = error.exitCode === 0 ? 0 : 2;
  } else throw error;
}
