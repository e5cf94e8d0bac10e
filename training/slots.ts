/**
 * Measures how well slots are read on trades that nobody fitted the tagger on: of the marked slots and the slots read,
 * twice those that agree in every word, over all. Intents are given.
 *
 * Use: npx tsx training/slots.ts [--kept FILE] [--bot NAME BOT TEST]…
 */
import { readdirSync } from 'node:fs';
import path from 'node:path';
import { loadBotFile, loadTestFile } from '../src/cli/files.js';
import type { BotDocument } from '../src/core/bot/document.js';
import { kindOfSlot, formOfIntent } from '../src/core/bot/document.js';
import type { TestLine } from '../src/core/formats/testFile.js';
import { encodeWith, teach } from '../src/core/recognise/answer.js';
import { openRecogniser } from '../src/core/recognise/open.js';
import { keeping } from './kept.js';
import { NOW, readOptions } from './trials.js';

/** Marked slots, slots read, and those that agree. */
interface Count {
  marked: number;
  read: number;
  agreed: number;
}

/** Slots of free words, of roles (one entity under two names or more), and the others. */
type Kind = 'free' | 'role' | 'other';

function kindsOf(document: BotDocument, intent: string): (slot: string) => Kind {
  const form = formOfIntent(document, intent);
  return (slot) => {
    const own = form?.slots.find(({ name }) => name === slot);
    if (!form || !own) return 'other';
    const kind = kindOfSlot(document, form, slot);
    if (kind === 'free' || kind === 'person') return 'free';
    return form.slots.filter(({ entity }) => entity === own.entity).length > 1 ? 'role' : 'other';
  };
}

const folder = path.join(import.meta.dirname, 'slots');
const keptApart = readdirSync(folder)
  .filter((name) => name.endsWith('.yaml'))
  .map((name) => ({
    name: name.replace('.yaml', ''),
    document: loadBotFile(path.join(folder, name)),
    lines: loadTestFile(path.join(folder, name.replace('.yaml', '.tsv'))),
  }));
const given = readOptions(process.argv.slice(2));
const { encoder, keep } = await keeping(given.kept);
const encode = encodeWith(encoder);

async function count(document: BotDocument, lines: readonly TestLine[]): Promise<Record<Kind, Count>> {
  const recogniser = openRecogniser(document, await teach(document, encode));
  const counts = Object.fromEntries(
    (['free', 'role', 'other'] as const).map((kind) => [kind, { marked: 0, read: 0, agreed: 0 }]),
  ) as Record<Kind, Count>;
  for (const { text, intent, slots, now } of lines) {
    if (intent === null || intent === undefined || slots === undefined) continue;
    const kindOf = kindsOf(document, intent);
    const vectors = await encode(recogniser.textsToEncode(text));
    const recognition = recogniser.recognise(text, vectors, now ?? NOW);
    const own = recogniser.readSlots(intent, recognition, vectors, null);
    const keys = new Set(own.map(({ slot, start, end }) => `${slot} ${start} ${end}`));
    for (const { slot } of own) counts[kindOf(slot)].read++;
    for (const { slot, start, end } of slots) {
      counts[kindOf(slot)].marked++;
      if (keys.has(`${slot} ${start} ${end}`)) counts[kindOf(slot)].agreed++;
    }
  }
  return counts;
}

const f1 = ({ marked, read, agreed }: Count): string =>
  marked + read === 0 ? '     –' : ((2 * agreed) / (marked + read)).toFixed(3).padStart(6);
const sum = (counts: readonly Count[]): Count =>
  counts.reduce(
    (all, one) => ({ marked: all.marked + one.marked, read: all.read + one.read, agreed: all.agreed + one.agreed }),
    { marked: 0, read: 0, agreed: 0 },
  );
const show = (name: string, counts: readonly Record<Kind, Count>[]): void => {
  const of = (kind: Kind) => sum(counts.map((one) => one[kind]));
  const all = sum([of('free'), of('role'), of('other')]);
  console.log(
    `${name.padEnd(28)} all ${f1(all)}  free ${f1(of('free'))}  roles ${f1(of('role'))}  others ${f1(of('other'))}   marked ${all.marked}, read ${all.read}, agreed ${all.agreed}`,
  );
};
const apart: Record<Kind, Count>[] = [];
for (const { name, document, lines } of [...keptApart, ...given.trials]) {
  const counts = await count(document, lines);
  if (apart.length < keptApart.length) apart.push(counts);
  show(name, [counts]);
  if (name === keptApart.at(-1)!.name) show('KEPT APART', apart);
}
keep();
