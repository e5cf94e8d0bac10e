import type { Kysely } from 'kysely';
import type { JobView } from '../../core/contract/job.js';
import type { TrialKind, TrialResults, TrialWish } from '../../core/contract/trial.js';
import type { TestLine } from '../../core/formats/testFile.js';
import { languageOf } from '../../core/language/index.js';
import { crossValidation } from '../../core/measure/crossValidation.js';
import type { LineResult } from '../../core/measure/evaluate.js';
import { foldsOf, withShare, type TaughtInPart } from '../../core/measure/folds.js';
import { learningCurve, SHARES, type CurveReading } from '../../core/measure/learningCurve.js';
import { noiseTrial, noisyLines } from '../../core/measure/noiseTrial.js';
import { NOISES } from '../../core/noise/index.js';
import { READER } from '../../core/recognise/modelFile.js';
import { simulatedFigures } from '../../core/simulate/figures.js';
import type { SimulatedConversation } from '../../core/simulate/simulate.js';
import type { Answering } from '../answering/answering.js';
import type { SharedModel } from '../answering/tasks.js';
import type { Database } from '../database/schema.js';
import { InputError } from '../errors.js';
import type { StoredBot } from '../repositories/bots.js';
import { listTestSets, readTestLines } from '../repositories/tests.js';
import { saveTrial } from '../repositories/trials.js';
import { localNow } from '../time.js';
import type { EncodingService } from './encoding.js';
import type { JobService, RunningJob } from './jobs.js';
import { readInBulk } from './lineReading.js';
import type { ModelService } from './models.js';
import { teachAside } from './teaching.js';

/** What trials take. */
export interface TrialParts {
  database: Kysely<Database>;
  answering: Answering;
  models: ModelService;
  encoding: EncodingService;
  jobs: JobService;
}

/** A trial that is about to begin: how many steps it has, and the work. */
interface Plan<Kind extends TrialKind> {
  total: number;
  /** Gives the result, with the number of the bot's last act when it was read. */
  work: (job: RunningJob) => Promise<{ revision: number; result: TrialResults[Kind] }>;
}

const FOLDS = 5;
const USUAL = { seed: 1, repeats: 3, strength: 0.5, conversations: 120 };

const utterancesOf = ({ document }: TaughtInPart): number =>
  document.intents.reduce((sum, { utterances }) => sum + utterances.length, 0);

/** A wish, with what it leaves out as usual. */
type Settings = TrialWish & typeof USUAL;

/** Puts bots through trials in the background. */
export class TrialService {
  readonly #parts: TrialParts;

  constructor(parts: TrialParts) {
    this.#parts = parts;
  }

  /**
   * Begins a trial and comes back at once; one of the same kind that goes on already is told of.
   * @throws InputError where there is nothing to try
   */
  async start(bot: StoredBot, wish: TrialWish): Promise<JobView> {
    const { database, jobs } = this.#parts;
    const going = jobs.running(bot.id, wish.kind);
    if (going) return going;
    const { kind } = wish;
    const { seed, repeats, strength, conversations } = USUAL;
    const settings = {
      kind,
      set: wish.set,
      seed: wish.seed ?? seed,
      repeats: wish.repeats ?? repeats,
      strength: wish.strength ?? strength,
      conversations: wish.conversations ?? conversations,
    };
    const plan = await this.#plan(bot, settings);
    const { view } = await jobs.start(bot.id, { kind, total: plan.total }, async (job) => {
      const { revision, result } = await plan.work(job);
      const made = { kind, settings, revision, reader: READER, madeAt: new Date().toISOString() };
      return saveTrial(database, bot.id, { ...made, result });
    });
    return view;
  }

  #plan(bot: StoredBot, settings: Settings): Plan<TrialKind> | Promise<Plan<TrialKind>> {
    switch (settings.kind) {
      case 'cross-validation':
        return this.#crossValidation(bot, settings);
      case 'learning curve':
        return this.#learningCurve(bot, settings);
      case 'noise':
        return this.#noise(bot, settings);
      case 'customers':
        return this.#customers(bot, settings);
    }
  }

  #crossValidation(bot: StoredBot, { seed, repeats }: Settings): Plan<'cross-validation'> {
    const { document } = bot;
    requireUtterances(bot);
    return {
      total: repeats * FOLDS,
      work: async (job) => {
        const all: LineResult[][] = [];
        for (let repeat = 0; repeat < repeats; repeat++) {
          const lines: LineResult[] = [];
          for (const [at, fold] of foldsOf(document, FOLDS, seed + repeat).entries()) {
            lines.push(...(await this.#readInPart(bot, fold, job)));
            job.progress(repeat * FOLDS + at + 1);
          }
          all.push(lines);
        }
        return { revision: bot.revision, result: crossValidation(document, all, { folds: FOLDS, seed }) };
      },
    };
  }

  #learningCurve(bot: StoredBot, { seed }: Settings): Plan<'learning curve'> {
    const { document } = bot;
    requireUtterances(bot);
    return {
      total: FOLDS * SHARES.length,
      work: async (job) => {
        const readings: CurveReading[] = [];
        for (const fold of foldsOf(document, FOLDS, seed)) {
          for (const share of SHARES) {
            const part = { document: withShare(fold.document, share, seed), lines: fold.lines };
            const lines = await this.#readInPart(bot, part, job);
            readings.push({ share, taught: utterancesOf(part), lines });
            job.progress(readings.length);
          }
        }
        return { revision: bot.revision, result: learningCurve(document, readings, seed) };
      },
    };
  }

  async #noise(bot: StoredBot, { set, seed, strength }: Settings): Promise<Plan<'noise'>> {
    const { database } = this.#parts;
    const sets = await listTestSets(database, bot.id);
    const chosen = sets.find(({ id }) => id === set) ?? (set === undefined ? sets[0] : undefined);
    const lines = chosen && (await readTestLines(database, bot.id, chosen.id));
    if (!chosen || !lines || lines.length === 0)
      throw new InputError('Noise is put into the lines of a test set. Make or bring in one first.');
    return {
      total: lines.length * (NOISES.length + 1),
      work: async (job) => {
        const { revision, model } = await this.#current(bot);
        let done = 0;
        const read = async (some: readonly TestLine[]) => {
          const results = await this.#read(bot, { model, lines: some }, (own) => job.progress(done + own));
          done += some.length;
          return results;
        };
        const clean = await read(lines);
        const trials = [];
        for (const noise of NOISES) {
          const noisy = noisyLines(lines, noise, { strength, seed, language: languageOf(bot.document) });
          trials.push(noiseTrial(noise, clean, await read(noisy), seed));
        }
        return { revision, result: { set: { id: chosen.id, name: chosen.name }, lines: lines.length, trials } };
      },
    };
  }

  #customers(bot: StoredBot, { seed, conversations: total }: Settings): Plan<'customers'> {
    return {
      total,
      work: async (job) => {
        const { revision, model } = await this.#current(bot);
        const now = localNow(bot.document.timeZone);
        const conversations: SimulatedConversation[] = [];
        for (let number = 0; number < total; number++) {
          const one = await this.#parts.answering.run('bulk', 'simulate', { model, number, seed, now });
          if (one) conversations.push(one);
          job.progress(number + 1);
        }
        return { revision, result: { now, figures: simulatedFigures(conversations), conversations } };
      },
    };
  }

  /** The bot may have gone on since: what reads is told by the model. */
  async #current(bot: StoredBot): Promise<{ revision: number; model: SharedModel }> {
    const { models } = this.#parts;
    const current = await models.current(bot);
    return { revision: current.revision, model: await models.shared(current) };
  }

  /** Teaches a part of a bot, and reads with it the lines that it was not taught. */
  async #readInPart(bot: StoredBot, { document, lines }: TaughtInPart, job: RunningJob): Promise<LineResult[]> {
    const model = await teachAside(this.#parts, { document, slots: false }, () => job.check());
    return this.#read(bot, { model, lines }, () => job.check());
  }

  #read(
    bot: StoredBot,
    { model, lines }: { model: SharedModel; lines: readonly TestLine[] },
    progress: (read: number) => void,
  ): Promise<LineResult[]> {
    return readInBulk(this.#parts, { model, lines, now: localNow(bot.document.timeZone) }, progress);
  }
}

function requireUtterances({ document }: StoredBot): void {
  const taught = document.intents.filter(({ utterances }) => utterances.length > 1);
  if (taught.length < 2)
    throw new InputError('Two intents with two utterances each are needed: some are taught, and the others read.');
}
