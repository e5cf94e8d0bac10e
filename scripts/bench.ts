import { mkdtempSync, readFileSync, rmSync, existsSync, writeFileSync } from 'node:fs';
import { spawn, spawnSync } from 'node:child_process';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { BotDocument, Intent, Utterance } from '../src/core/bot/document.js';
import { writeBotFile } from '../src/core/formats/botFile.js';
import { encodeTexts, type Encoder } from '../src/core/encode/encoder.js';
import { DEFAULT_COSTS } from '../src/core/bot/document.js';
import { crossValidation } from '../src/core/measure/crossValidation.js';
import { measure, readLine, taughtMessages } from '../src/core/measure/evaluate.js';
import { foldsOf, type TaughtInPart } from '../src/core/measure/folds.js';
import { gateFigures } from '../src/core/measure/gateFigures.js';
import { gatedMessages } from '../src/core/measure/levels.js';
import { gateOf } from '../src/core/recognise/gate.js';
import { lookAtModelFile, readModelFile, writeModelFile } from '../src/core/recognise/modelFile.js';
import { openRecogniser } from '../src/core/recognise/open.js';
import { prepareTraining, TrainingMemory } from '../src/core/recognise/train.js';
import { loadBotFile, loadTestFile } from '../src/cli/files.js';
import { seedDemo } from '../src/cli/seed.js';
import { encoderFolder } from '../src/server/encoder/files.js';
import { loadEncoder } from '../src/server/encoder/load.js';
import { databaseFile } from '../src/server/paths.js';
import { firstPage, loadLines } from './load.js';
import { HOSTILE_TEXTS } from '../tests/hostileTexts.js';

/** Lines of the test files are never taught. */
const NOTHING_TAUGHT: ReadonlySet<string> = new Set();
const NOW = '2026-03-04T09:30';
const PORT = '4179';
const MESSAGES = 200;
const BULK = 1000;

const DEMOS = ['nursery', 'waste'].map((folder) => ({
  folder,
  document: loadBotFile(`demo/${folder}/bot.yaml`),
  lines: loadTestFile(`demo/${folder}/test.tsv`),
}));
const MESSAGE_TEXTS = DEMOS.flatMap(({ lines }) => lines.map(({ text }) => text));

function quantile(values: number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0;
}

async function timed<T>(work: () => T | Promise<T>): Promise<{ value: T; milliseconds: number }> {
  const started = performance.now();
  const value = await work();
  return { value, milliseconds: performance.now() - started };
}

/** A bot of a size, made by rule from the demo bots, for speed only: intents are used again with another word in each. */
function botOfSize(intents: number, utterances: number): BotDocument {
  const [nursery, waste] = DEMOS.map(({ document }) => document) as [BotDocument, BotDocument];
  const all = [...nursery.intents, ...waste.intents];
  const made = Array.from({ length: intents }, (_, index): Intent => {
    const source = all[index % all.length]!;
    const round = Math.floor(index / all.length);
    return {
      ...source,
      name: `${source.name}_${index}`,
      utterances: Array.from({ length: utterances }, (__, place): Utterance => {
        const utterance = source.utterances[place % source.utterances.length]!;
        const again = Math.floor(place / source.utterances.length);
        const text =
          round + again === 0 ? utterance.text : `${utterance.text} for lot ${index} ${'abcdefghij'[again % 10]!}`;
        return { id: `${index}-${place}`, text, marks: utterance.marks };
      }),
    };
  });
  const entities = [
    ...nursery.entities,
    ...waste.entities.filter(({ name }) => !nursery.entities.some((own) => own.name === name)),
  ];
  return {
    ...nursery,
    name: `${intents} × ${utterances}`,
    entities,
    forms: [...nursery.forms, ...waste.forms],
    desks: [...nursery.desks, ...waste.desks.filter(({ name }) => !nursery.desks.some((own) => own.name === name))],
    intents: made,
  };
}

/** One utterance more, as an edit makes it. */
function edited(document: BotDocument): BotDocument {
  const [first, ...rest] = document.intents;
  return {
    ...document,
    intents: [
      { ...first!, utterances: [...first!.utterances, { id: 'more', text: 'one more way of putting it', marks: [] }] },
      ...rest,
    ],
  };
}

type Table = Map<string, string[]>;

function put(table: Table, what: string, figure: number, aim?: number): void {
  const ratio = aim === undefined ? '' : ` (${(figure / aim).toFixed(2)})`;
  table.set(what, [...(table.get(what) ?? []), `${figure.toFixed(figure < 10 ? 2 : 0)}${ratio}`]);
}

/** Messages for bulk reading, each new to any cache. */
const BULK_TEXTS = Array.from(
  { length: BULK },
  (_, index) => `${MESSAGE_TEXTS[index % MESSAGE_TEXTS.length]!} ${index}`,
);

/**
 * Times of the core for a bot of one size, in this process.
 * @param aim of a retraining, in milliseconds
 * @param bulk vectors of the bulk messages, filled by the first bot that reads them
 */
async function coreTimes(
  table: Table,
  document: BotDocument,
  encoder: Encoder,
  aim: number | undefined,
  bulk: Map<string, Float32Array>,
): Promise<void> {
  console.error(`${document.name} …`);
  const memory = new TrainingMemory();
  const training = prepareTraining(document).texts;
  const vectors = new Map<string, Float32Array>();
  const first = await timed(async () => {
    for (const [text, vector] of await encodeTexts(encoder, training)) vectors.set(text, vector);
    return prepareTraining(document, memory).train(vectors);
  });
  put(table, 'first training with encoding', first.milliseconds);
  const more = edited(document);
  for (const [text, vector] of await encodeTexts(
    encoder,
    prepareTraining(more).texts.filter((text) => !vectors.has(text)),
  ))
    vectors.set(text, vector);
  const retrains: number[] = [];
  const rounds = document.intents.length > 100 ? 1 : 3;
  for (let round = 0; round < rounds; round++) {
    if (round > 0) prepareTraining(document, memory).train(vectors);
    retrains.push((await timed(() => prepareTraining(more, memory).train(vectors))).milliseconds);
  }
  put(table, 'retraining after one edit, five-fold cross-validation in it (of its aim)', quantile(retrains, 0.5), aim);
  const bytes = writeModelFile(document, first.value);
  put(table, 'size of the model file, MB', bytes.length / 1024 / 1024);
  const opened = await timed(() => {
    const file = readModelFile(lookAtModelFile(bytes));
    return openRecogniser(file.document, file.model);
  });
  put(table, 'opening the model, in a thread that answers (of 20)', opened.milliseconds, 20);
  const recogniser = opened.value;
  const [encoding, reading, whole]: [number[], number[], number[]] = [[], [], []];
  for (const text of MESSAGE_TEXTS.slice(0, MESSAGES)) {
    const known = await timed(() => encodeTexts(encoder, recogniser.textsToEncode(text)));
    const recognised = await timed(() => recogniser.recognise(text, known.value, NOW));
    encoding.push(known.milliseconds);
    reading.push(recognised.milliseconds);
    whole.push(known.milliseconds + recognised.milliseconds);
  }
  put(table, 'a message without cached vector, p50 (of 25)', quantile(whole, 0.5), 25);
  put(table, 'a message without cached vector, p95', quantile(whole, 0.95));
  put(table, 'a message with cached vector, p50 (of 1)', quantile(reading, 0.5), 1);
  put(table, 'a message with cached vector, p95', quantile(reading, 0.95));
  const encoded = await timed(async () => {
    const missing = BULK_TEXTS.flatMap((text) => recogniser.textsToEncode(text)).filter((text) => !bulk.has(text));
    for (const [text, vector] of await encodeTexts(encoder, missing)) bulk.set(text, vector);
  });
  const all = await timed(() => BULK_TEXTS.map((text) => recogniser.recognise(text, bulk, NOW).intent));
  put(table, '1,000 messages in bulk: encoding what no bot before had to', encoded.milliseconds);
  put(table, '1,000 messages in bulk: the rest', all.milliseconds);
  put(table, 'memory of the process, MB', process.memoryUsage.rss() / 1024 / 1024);
}

/** How long the server makes a short question wait while something else is going on. @returns the longest wait */
async function longestWait(url: string, during: Promise<unknown>): Promise<number> {
  let over = false;
  const done = during.finally(() => (over = true));
  const waits: number[] = [];
  while (!over) {
    waits.push((await timed(() => fetch(`${url}/model`).then((response) => response.text()))).milliseconds);
    await new Promise((resolve) => setTimeout(resolve, 2));
  }
  await done;
  return quantile(waits, 1);
}

/** What the main thread is asked to do that is large, and how long others wait meanwhile. */
async function largeWork(table: Table, root: string): Promise<void> {
  const small = `${root}/api/bots/1`;
  const large = botOfSize(150, 100);
  const imported = timed(() => fetch(`${root}/api/bots/import`, { method: 'POST', body: writeBotFile(large, 'json') }));
  put(table, 'longest wait while 15,000 utterances are imported (of 50)', await longestWait(small, imported), 50);
  const answer = (await imported).value;
  if (!answer.ok) throw new Error(await answer.text());
  const { id } = (await answer.json()) as { id: number };
  put(table, 'importing 15,000 utterances', (await imported).milliseconds);
  const act = (intent: string, text: string) =>
    fetch(`${root}/api/bots/${id}/acts`, {
      method: 'POST',
      body: JSON.stringify({ do: 'addUtterances', intent, utterances: [text] }),
    });
  const acts: number[] = [];
  const editing = async () => {
    for (let round = 0; round < 10; round++) {
      const one = await timed(() => act(large.intents[round]!.name, `one more way of putting it ${round}`));
      if (!one.value.ok) throw new Error(await one.value.text());
      acts.push(one.milliseconds);
    }
  };
  put(table, 'longest wait while a bot of 150 × 100 is edited (of 50)', await longestWait(small, editing()), 50);
  put(table, 'an act upon it, request to answer, p50', quantile(acts, 0.5));
  const many = Array.from({ length: 10_000 }, (_, index) => `message number ${index}`);
  const [first] = large.intents;
  const bulk = async (body: unknown) => {
    const done = await fetch(`${root}/api/bots/${id}/acts`, { method: 'POST', body: JSON.stringify(body) });
    if (!done.ok) throw new Error(await done.text());
  };
  const from = first!.name;
  const ids = many.map((_, index) => `many${index}`);
  const rows = many.map((was, index) => ({ id: ids[index]!, was }));
  const inOneAct: [string, unknown][] = [
    ['added', { do: 'addUtterances', intent: from, utterances: many, ids }],
    ['moved', { do: 'moveUtterances', rows, to: large.intents[1]!.name }],
    ['moved back', { do: 'moveUtterances', rows, to: from }],
  ];
  for (const [what, body] of inOneAct) {
    put(table, `longest wait while 10,000 utterances are ${what} in one act`, await longestWait(small, bulk(body)));
  }
  const page = timed(async () => (await (await fetch(`${root}/bots/${id}/teach?intent=${from}`)).text()).length);
  put(table, 'longest wait while a page of 10,000 rows is opened (of 50)', await longestWait(small, page), 50);
  put(table, 'the page of utterances, MB', (await page).value / 1024 / 1024);
  const values = many.map((value) => ({ value, synonyms: [`${value} again`] }));
  await bulk({ do: 'addEntity', name: 'many', kind: 'list' });
  await bulk({ do: 'addValues', entity: 'many', values });
  const list = timed(async () => (await (await fetch(`${root}/bots/${id}/teach/entities?entity=many`)).text()).length);
  put(table, 'longest wait while a page of 10,000 values is opened (of 50)', await longestWait(small, list), 50);
  put(table, 'the page of values, MB', (await list).value / 1024 / 1024);
}

/** What a multiplication and addition takes here: says how fast the machine is while the figures are taken. */
function nanosecondsPerStep(): number {
  const [a, b] = [new Float32Array(512).fill(0.5), new Float32Array(512).fill(0.25)];
  const rounds = 20_000;
  let sum = 0;
  const started = performance.now();
  for (let round = 0; round < rounds; round++) for (let at = 0; at < 512; at++) sum += a[at]! * b[at]!;
  if (sum === 0) throw new Error('The loop was not run.');
  return ((performance.now() - started) * 1e6) / (rounds * 512);
}

/** Lines of a long test run, and messages that a gate is set by. */
const MANY = 10_000;

/** What Gate and Prove reckon, in this process, with the vectors known. */
async function proveTimes(table: Table, encoder: Encoder): Promise<void> {
  console.error('runs and trials …');
  const known = new Map<string, Float32Array>();
  const vectorsOf = async (texts: readonly string[]) => {
    const missing = texts.filter((text) => !known.has(text));
    for (const [text, vector] of await encodeTexts(encoder, missing)) known.set(text, vector);
  };
  const [{ document, lines }] = DEMOS as [(typeof DEMOS)[number]];
  const training = prepareTraining(document);
  await vectorsOf(training.texts);
  const recogniser = openRecogniser(document, training.train(known));
  await vectorsOf(lines.flatMap(({ text }) => recogniser.textsToEncode(text)));
  const many = Array.from({ length: MANY }, (_, at) => lines[at % lines.length]!);
  const settings = { now: NOW, taught: taughtMessages(document) };
  const names = document.intents.map(({ name }) => name);
  const run = await timed(() => {
    const results = many.map((line) => readLine(recogniser, line, known, settings));
    measure(results, names);
    return results;
  });
  put(table, 'a test run of 10,000 lines, vectors known (of 10,000)', run.milliseconds, 10_000);
  const messages = gatedMessages(run.value);
  const gate = gateOf(document);
  const moves: number[] = [];
  for (let level = 50; level < 100; level++) {
    const moved = { ...gate, accept: level / 100 };
    moves.push((await timed(() => gateFigures(messages, moved, DEFAULT_COSTS))).milliseconds);
  }
  put(table, 'a level moved over 10,000 messages, p50 (of 50)', quantile(moves, 0.5), 50);
  put(table, 'a level moved over 10,000 messages, p95 (of 50)', quantile(moves, 0.95), 50);
  const bot = botOfSize(30, 14);
  const parts = foldsOf(bot, 5, 1);
  const memory = new TrainingMemory();
  const read = (part: TaughtInPart) => {
    const prepared = prepareTraining(part.document, memory, { slots: false });
    const own = openRecogniser(part.document, prepared.train(known));
    const taught = taughtMessages(part.document);
    return part.lines.map((line) => readLine(own, line, known, { now: NOW, taught }));
  };
  for (const part of parts) {
    await vectorsOf(prepareTraining(part.document, memory, { slots: false }).texts);
    await vectorsOf(part.lines.flatMap(({ text }) => recogniser.textsToEncode(text)));
  }
  const validation = await timed(() => crossValidation(bot, [parts.flatMap(read)], { folds: 5, seed: 1 }));
  put(table, 'cross-validation of 30 × 14 in 5 folds, vectors known (of 5,000)', validation.milliseconds, 5000);
}

/** The demo server from outside. */
async function serverTimes(table: Table): Promise<void> {
  const data = mkdtempSync(path.join(tmpdir(), 'reed-gate-bench-'));
  await seedDemo('demo', databaseFile(data), () => undefined);
  const server = spawn(process.execPath, ['serve.js'], {
    stdio: 'ignore',
    env: {
      ...process.env,
      HOST: '127.0.0.1',
      PORT,
      REED_GATE_DATA: data,
      BODY_SIZE_LIMIT: String(26 * 1024 * 1024),
      LOG_LEVEL: 'silent',
      NODE_ENV: 'production',
    },
  });
  const url = `http://127.0.0.1:${PORT}/api/bots/1`;
  const post = async (to: string, body: unknown) => {
    const response = await fetch(url + to, {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { 'content-type': 'application/json' },
    });
    if (!response.ok) throw new Error(await response.text());
    return (await response.json()) as unknown;
  };
  const state = async () => (await (await fetch(`${url}/model`)).json()) as { state: string; settled: boolean };
  const until = async (reached: (now: { state: string; settled: boolean }) => boolean) => {
    while (!reached(await state())) await new Promise((resolve) => setTimeout(resolve, 10));
  };
  try {
    for (
      let attempt = 0;
      !(await fetch(`${url}/model`).then(
        (response) => response.ok,
        () => false,
      ));
      attempt++
    ) {
      if (attempt > 100) throw new Error('The server does not answer.');
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    await post('/recognise', { text: 'warm up' });
    await until(({ settled }) => settled);
    const probes: number[] = [];
    for (const [index, text] of MESSAGE_TEXTS.slice(0, MESSAGES).entries()) {
      // A word that no text has makes each message new to the cache.
      probes.push((await timed(() => post('/recognise', { text: `${text} ${index}` }))).milliseconds);
    }
    put(table, 'probe, request to answer, new text, p50 (of 50)', quantile(probes, 0.5), 50);
    put(table, 'probe, request to answer, new text, p95 (of 50)', quantile(probes, 0.95), 50);
    const retrains: number[] = [];
    const edit = async (what: string) => {
      const started = performance.now();
      await post('/acts', { do: 'addUtterances', intent: 'opening_hours', utterances: [what] });
      await until(({ state: now }) => now === 'current');
      retrains.push(performance.now() - started);
      await until(({ settled }) => settled);
    };
    for (let round = 0; round < 5; round++) await edit(`are you open on day ${round} of the fair`);
    const wait = await longestWait(url, edit('are you open on the last day of the fair'));
    put(table, 'an edit until the model is current, p50 (of 1,500)', quantile(retrains, 0.5), 1500);
    put(table, 'an edit until the model is current, slowest of 6', quantile(retrains, 1));
    put(table, 'longest wait of a short question during an edit (of 20)', wait, 20);
    const root = `http://127.0.0.1:${PORT}`;
    for (const { what, clients, rate, p50, p99 } of await loadLines(root, MESSAGE_TEXTS)) {
      const at = `${what}, ${clients} ${clients === 1 ? 'client' : 'clients'}`;
      put(table, `${at}: a second`, rate);
      put(table, `${at}: p50`, p50);
      put(table, `${at}: p99`, p99);
    }
    const { styles, scripts } = await firstPage(root);
    put(table, 'styles of a first page, kB', styles.whole / 1000);
    put(table, 'styles of a first page, compressed, kB', styles.sent / 1000);
    put(table, 'scripts of a first page, kB', scripts.whole / 1000);
    put(table, 'scripts of a first page, compressed, kB', scripts.sent / 1000);
    await largeWork(table, root);
    const status = readFileSync(`/proc/${server.pid}/status`, 'utf8');
    put(table, 'memory of the server after two large bots, MB', Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024);
  } finally {
    server.kill();
    rmSync(data, { recursive: true, force: true });
  }
}

/** How well the demo bots are recognised, whole and with only names and descriptions. */
async function accuracies(encoder: Encoder): Promise<void> {
  for (const { folder, document, lines } of DEMOS) {
    const bare = { ...document, intents: document.intents.map((intent) => ({ ...intent, utterances: [] })) };
    for (const [what, bot] of [
      ['whole', document],
      ['names and descriptions alone', bare],
    ] as const) {
      const recogniser = openRecogniser(
        bot,
        prepareTraining(bot).train(await encodeTexts(encoder, prepareTraining(bot).texts)),
      );
      const vectors = await encodeTexts(
        encoder,
        lines.flatMap(({ text }) => recogniser.textsToEncode(text)),
      );
      const { accuracy, topThree, auroc } = measure(
        lines.map((line) => readLine(recogniser, line, vectors, { now: NOW, taught: NOTHING_TAUGHT })),
        bot.intents.map(({ name }) => name),
      );
      const shouted = lines
        .filter(({ intent }) => typeof intent === 'string')
        .map((line) => ({ ...line, text: line.text.toUpperCase() }));
      const loud = await encodeTexts(
        encoder,
        shouted.flatMap(({ text }) => recogniser.textsToEncode(text)),
      );
      const inCapitals = measure(
        shouted.map((line) => readLine(recogniser, { ...line, slots: [] }, loud, { now: NOW, taught: NOTHING_TAUGHT })),
        bot.intents.map(({ name }) => name),
      ).accuracy;
      const figures = [accuracy, topThree, auroc, inCapitals].map((figure) => (figure ?? 0).toFixed(3));
      console.log(
        `${folder}, ${what}: accuracy ${figures[0]!}, among the first three ${figures[1]!}, AUROC ${figures[2]!}; typed in capitals ${figures[3]!}`,
      );
    }
  }
}

/** A bot with a list of ten thousand values more, all of them alike. */
function withLongList(document: BotDocument): BotDocument {
  const values = Array.from({ length: 10_000 }, (_, index) => ({
    id: `long${index}`,
    value: `value${index.toString(36)}word`,
    synonyms: [],
  }));
  return {
    ...document,
    entities: [...document.entities, { name: 'long_list', kind: 'list', misspellings: true, values }],
    forms: document.forms.map((form) => ({
      ...form,
      slots: [...form.slots, { ...form.slots[0]!, id: `${form.name}-long`, name: 'long_list', entity: 'long_list' }],
    })),
  };
}

/** How long texts that mean harm take beside the encoder, once such texts were read: the slowest of them. */
function hostileTimes(): void {
  const [{ document }] = DEMOS as [(typeof DEMOS)[0]];
  const demo = { ...document, languages: ['qaa'] };
  for (const [what, bot] of [
    ['demo bot', demo],
    ['with a list of 10,000 values', withLongList(demo)],
  ] as const) {
    const recogniser = openRecogniser(bot, prepareTraining(bot).train(new Map()));
    const read = (text: string): number => {
      const start = performance.now();
      recogniser.recognise(text, new Map(), NOW);
      return performance.now() - start;
    };
    for (const [, text] of HOSTILE_TEXTS) read(`so ${text}`);
    const times = HOSTILE_TEXTS.map(([name, text]) => ({ name, milliseconds: read(text) })).sort(
      (a, b) => b.milliseconds - a.milliseconds,
    );
    const shown = times.slice(0, 4).map(({ name, milliseconds }) => `${name} ${milliseconds.toFixed(0)} ms`);
    console.log(
      `texts that mean harm, ${times.length}, ${what}, without the encoder; the slowest: ${shown.join(', ')}`,
    );
  }
}

/** How well an intent is recognised that has only a name and a description beside others that are taught: each in turn. */
async function aloneByDescription(encoder: Encoder): Promise<void> {
  const vectors = new Map<string, Float32Array>();
  const encode = async (texts: readonly string[]) => {
    for (const [text, vector] of await encodeTexts(
      encoder,
      texts.filter((text) => !vectors.has(text)),
    ))
      vectors.set(text, vector);
  };
  for (const { folder, document, lines } of DEMOS) {
    let [first, amongThree, all] = [0, 0, 0];
    for (const intent of document.intents) {
      const bare = { ...intent, utterances: [] };
      const bot = { ...document, intents: document.intents.map((other) => (other === intent ? bare : other)) };
      await encode(prepareTraining(bot).texts);
      const recogniser = openRecogniser(bot, prepareTraining(bot).train(vectors));
      for (const line of lines.filter((own) => own.intent === intent.name)) {
        await encode(recogniser.textsToEncode(line.text));
        const { place } = readLine(recogniser, line, vectors, { now: NOW, taught: NOTHING_TAUGHT });
        if (place === 1) first++;
        if (place !== null && place <= 3) amongThree++;
        all++;
      }
    }
    const [right, near] = [(first / all).toFixed(3), (amongThree / all).toFixed(3)];
    console.log(
      `${folder}, one intent by name and description beside the taught ones: accuracy ${right}, among the first three ${near}`,
    );
  }
}

/** What ordinary classifiers reach on the same files, where they are to be had. @param script compares them */
function peers(script: string): void {
  if (!existsSync(script)) {
    console.log('No comparison with other classifiers: give the path of its script after the command.');
    return;
  }
  for (const { folder, document, lines } of DEMOS) {
    const data = mkdtempSync(path.join(tmpdir(), 'reed-gate-peers-'));
    const [bot, test] = [path.join(data, 'bot.json'), path.join(data, 'test.jsonl')];
    const intents = document.intents.map(({ name, utterances }) => ({
      name,
      utterances: utterances.map(({ text }) => text),
    }));
    writeFileSync(bot, JSON.stringify({ intents }));
    writeFileSync(test, lines.map(({ text, intent }) => JSON.stringify({ text, intent })).join('\n'));
    const { stdout, stderr, status } = spawnSync('/usr/bin/python3', [script, bot, test], { encoding: 'utf8' });
    console.log(
      `${folder}\n${status === 0 ? stdout : `could not be compared: ${stderr.trim().split('\n').at(-1) ?? ''}`}`,
    );
    rmSync(data, { recursive: true, force: true });
  }
}

function show(title: string, heads: string[], table: Table): void {
  const width = Math.max(...[...table.keys()].map((what) => what.length));
  console.log(`\n${title}\n${''.padEnd(width)}${heads.map((head) => head.padStart(16)).join('')}`);
  for (const [what, figures] of table)
    console.log(what.padEnd(width) + figures.map((figure) => figure.padStart(16)).join(''));
}

const encoder = await loadEncoder(encoderFolder());
console.log(
  `A step of a plain loop takes ${nanosecondsPerStep().toFixed(2)} ns here; 1.6 ns on a core of 2.5 GHz of its own.`,
);
const server: Table = new Map();
await serverTimes(server);
show('The server with the demo, milliseconds (ratio to the aim)', ['nursery'], server);
const proving: Table = new Map();
await proveTimes(proving, encoder);
show('Gate and Prove, milliseconds (ratio to the aim)', ['nursery'], proving);
console.log('');
hostileTimes();
console.log('');
await accuracies(encoder);
await aloneByDescription(encoder);
console.log('');
peers(process.argv[2] ?? '');
const core: Table = new Map();
const bulk = new Map<string, Float32Array>();
for (const [intents, utterances, aim] of [
  [16, 15, 300],
  [30, 14, undefined],
  [150, 100, 10_000],
] as const) {
  put(core, 'nanoseconds for a step of a plain loop', nanosecondsPerStep());
  await coreTimes(core, botOfSize(intents, utterances), encoder, aim, bulk);
}
show(
  'Milliseconds, with the ratio to the aim in brackets; intents × utterances',
  ['16 × 15', '30 × 14', '150 × 100'],
  core,
);
