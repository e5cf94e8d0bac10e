import { shareInterval, type ShareInterval } from '../measure/interval.js';
import type { SimulatedConversation, SimulatedEnd } from './simulate.js';

/** How conversations of one kind went. */
export interface SimulatedShare {
  name: string;
  conversations: number;
  /** Those that got what they came for. */
  completed: number;
  interval: ShareInterval | null;
  /** The mean number of messages that those needed. */
  turns: number | null;
  ends: Partial<Record<SimulatedEnd, number>>;
}

/** What a trial with simulated customers gave. */
export interface SimulatedFigures {
  all: SimulatedShare;
  tempers: SimulatedShare[];
  forms: SimulatedShare[];
  /** Where conversations came to no good end, the most frequent first. */
  places: { form: string; at: string; end: SimulatedEnd; count: number }[];
  /** Slots that held something else in the end, the most frequent first. */
  wrong: { form: string; slot: string; count: number }[];
}

function shareOf(name: string, some: readonly SimulatedConversation[]): SimulatedShare {
  const done = some.filter(({ end }) => end === 'completed');
  const ends: SimulatedShare['ends'] = {};
  for (const { end } of some) ends[end] = (ends[end] ?? 0) + 1;
  return {
    name,
    conversations: some.length,
    completed: done.length,
    interval: shareInterval(done.length, some.length),
    turns: done.length === 0 ? null : done.reduce((sum, { turns }) => sum + turns, 0) / done.length,
    ends,
  };
}

function counted<Item extends object>(items: readonly Item[]): (Item & { count: number })[] {
  const counts = new Map<string, Item & { count: number }>();
  for (const item of items) {
    const key = JSON.stringify(item);
    const known = counts.get(key);
    if (known) known.count++;
    else counts.set(key, { ...item, count: 1 });
  }
  return [...counts.values()].sort((a, b) => b.count - a.count);
}

/** Puts together what simulated conversations gave. */
export function simulatedFigures(conversations: readonly SimulatedConversation[]): SimulatedFigures {
  const by = (nameOf: (one: SimulatedConversation) => string) =>
    [...new Set(conversations.map(nameOf))].map((name) =>
      shareOf(
        name,
        conversations.filter((one) => nameOf(one) === name),
      ),
    );
  return {
    all: shareOf('all', conversations),
    tempers: by(({ temper }) => temper),
    forms: by(({ form }) => form),
    places: counted(conversations.flatMap(({ form, at, end }) => (at === null ? [] : [{ form, at, end }]))),
    wrong: counted(
      conversations
        .filter(({ end }) => end === 'completed wrongly')
        .flatMap(({ form, wrong }) => wrong.map((slot) => ({ form, slot }))),
    ),
  };
}
