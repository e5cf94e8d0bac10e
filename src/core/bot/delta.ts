import type { BotDocument, Desk, Entity, Form, Intent, ListValue, Slot, Utterance } from './document.js';

/** What of a bot is no list. */
export const SETTINGS = [
  'name',
  'languages',
  'timeZone',
  'region',
  'greeting',
  'gate',
  'noMatch',
  'texts',
] as const satisfies (keyof BotDocument)[];

export type Settings = Pick<BotDocument, (typeof SETTINGS)[number]>;
export type EntityHead = Omit<Entity, 'values'>;
export type IntentHead = Omit<Intent, 'utterances'>;
export type FormHead = Omit<Form, 'slots'>;

/** A row that is put into a list, or in the place of the row with its key. */
export interface Put<Row> {
  row: Row;
  /** The key of the row before it, `null` for the first place; without it the row stands already and stays there. */
  after?: string | null;
  /** Its index, for where the row before it is no longer there. */
  at?: number;
}

/** What becomes of a list: rows that go, by key, and rows that come or change. */
export interface ListDelta<Row> {
  gone: string[];
  put: Put<Row>[];
}

/** What becomes of parts that have rows of their own. */
export interface PartsDelta<Head, Row> {
  /** Done first: what follows uses the new names. */
  renamed: { from: string; to: string }[];
  heads: ListDelta<Head>;
  rows: ({ of: string } & ListDelta<Row>)[];
}

/** The rows and settings that tell one document from another; what both have is not in it. */
export interface Delta {
  settings: Partial<Settings>;
  desks: ListDelta<Desk>;
  entities: PartsDelta<EntityHead, ListValue>;
  intents: PartsDelta<IntentHead, Utterance>;
  forms: PartsDelta<FormHead, Slot>;
}

/** A document is not as a delta needs it: something it speaks of has changed meanwhile. */
export class MisfitError extends Error {}

const nameOf = ({ name }: { name: string }): string => name;
const idOf = ({ id }: { id: string }): string => id;

/** Whether two parts say the same. */
const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

/**
 * What leads from one list to another, in one pass. Rows that are the same object are not looked into.
 * @param key names a row within its list
 */
function listDelta<Row>(before: readonly Row[], after: readonly Row[], key: (row: Row) => string): ListDelta<Row> {
  if (before === after) return { gone: [], put: [] };
  const was = new Map(before.map((row, index) => [key(row), { row, index }]));
  const now = new Set(after.map(key));
  const gone = before.map(key).filter((name) => !now.has(name));
  const put: Put<Row>[] = [];
  let highest = -1;
  after.forEach((row, at) => {
    const known = was.get(key(row));
    const previous = at === 0 ? null : key(after[at - 1]!);
    if (!known) put.push({ row, after: previous, at });
    else if (known.index < highest) {
      gone.push(key(row));
      put.push({ row, after: previous, at });
    } else {
      highest = known.index;
      if (!same(row, known.row)) put.push({ row });
    }
  });
  return { gone, put };
}

interface Part<Head, Row> {
  head: Head;
  rows: readonly Row[];
}

type Named = { name: string };
type WithId = { id: string };

/** Parts that were called otherwise stand in the same place of a list of the same length. */
function renamings(before: readonly Part<Named, unknown>[], after: readonly Part<Named, unknown>[]) {
  if (before.length !== after.length) return [];
  const [was, is] = [before, after].map((parts) => new Set(parts.map(({ head }) => head.name))) as [
    Set<string>,
    Set<string>,
  ];
  return before.flatMap(({ head: { name: from } }, at) => {
    const to = after[at]!.head.name;
    return from !== to && !is.has(from) && !was.has(to) ? [{ from, to }] : [];
  });
}

function partsDelta<Whole, Head extends Named, Row extends WithId>(
  before: readonly Whole[],
  after: readonly Whole[],
  split: (whole: Whole) => Part<Head, Row>,
): PartsDelta<Head, Row> {
  if (before === after) return { renamed: [], heads: { gone: [], put: [] }, rows: [] };
  const known = new Set(before);
  const [was, is] = [before.map(split), after.map(split)];
  const renamed = renamings(was, is);
  const newName = new Map(renamed.map(({ from, to }) => [from, to]));
  const heads = listDelta(
    was.map(({ head }) => ({ ...head, name: newName.get(head.name) ?? head.name })),
    is.map(({ head }) => head),
    nameOf,
  );
  const rowsBefore = new Map(was.map(({ head, rows }) => [newName.get(head.name) ?? head.name, rows]));
  const rows = after.flatMap((whole, at) => {
    if (known.has(whole)) return [];
    const { head, rows: own } = is[at]!;
    const delta = listDelta(rowsBefore.get(head.name) ?? [], own, idOf);
    return delta.gone.length + delta.put.length === 0 ? [] : [{ of: head.name, ...delta }];
  });
  const stays = new Set(is.map(({ head }) => head.name));
  const lost = [...rowsBefore]
    .filter(([name, own]) => !stays.has(name) && own.length > 0)
    .map(([name, own]) => ({ of: name, gone: own.map(idOf), put: [] }));
  return { renamed, heads, rows: [...lost, ...rows] };
}

const splitEntity = ({ values, ...head }: Entity): Part<EntityHead, ListValue> => ({ head, rows: values ?? [] });
const splitIntent = ({ utterances, ...head }: Intent): Part<IntentHead, Utterance> => ({ head, rows: utterances });
const splitForm = ({ slots, ...head }: Form): Part<FormHead, Slot> => ({ head, rows: slots });

/** What leads from one document to another. Parts and rows that are the same objects in both cost a look each. */
export function deltaBetween(before: BotDocument, after: BotDocument): Delta {
  const changed = SETTINGS.filter((key) => !same(before[key], after[key]));
  return {
    settings: Object.fromEntries(changed.map((key) => [key, after[key]])),
    desks: listDelta(before.desks, after.desks, nameOf),
    entities: partsDelta(before.entities, after.entities, splitEntity),
    intents: partsDelta(before.intents, after.intents, splitIntent),
    forms: partsDelta(before.forms, after.forms, splitForm),
  };
}

/** Rows of one slice. */
const SLICE = 200;

/** What makes a document out of nothing but its settings, in deltas of few rows each: parts first, then their rows. */
export function* slicesOf(document: BotDocument): Generator<Delta> {
  const bare: BotDocument = {
    ...document,
    entities: document.entities.map((entity) => (entity.values ? { ...entity, values: [] } : entity)),
    intents: document.intents.map((intent) => ({ ...intent, utterances: [] })),
    forms: document.forms.map((form) => ({ ...form, slots: [] })),
  };
  const nothing: BotDocument = { ...document, entities: [], intents: [], forms: [], desks: [] };
  yield deltaBetween(nothing, bare);
  const unchanged = deltaBetween(bare, bare);
  yield* rowsInSlices(
    document.entities,
    ({ values }) => values ?? [],
    (rows) => ({ ...unchanged, entities: rows }),
  );
  yield* rowsInSlices(
    document.forms,
    ({ slots }) => slots,
    (rows) => ({ ...unchanged, forms: rows }),
  );
  yield* rowsInSlices(
    document.intents,
    ({ utterances }) => utterances,
    (rows) => ({ ...unchanged, intents: rows }),
  );
}

/** How many rows a delta puts. */
export const rowsPut = ({ entities, forms, intents }: Delta): number =>
  [entities, forms, intents].reduce((sum, { rows }) => sum + rows.reduce((own, { put }) => own + put.length, 0), 0);

/** How many rows a document has. */
export const rowsOfDocument = ({ entities, forms, intents }: BotDocument): number =>
  entities.reduce((sum, { values }) => sum + (values?.length ?? 0), 0) +
  forms.reduce((sum, { slots }) => sum + slots.length, 0) +
  intents.reduce((sum, { utterances }) => sum + utterances.length, 0);

function* rowsInSlices<Whole extends Named, Row extends WithId>(
  parts: readonly Whole[],
  rowsOf: (part: Whole) => readonly Row[],
  deltaOf: (delta: PartsDelta<never, Row>) => Delta,
): Generator<Delta> {
  let rows: PartsDelta<never, Row>['rows'] = [];
  let count = 0;
  const slice = (): Delta => deltaOf({ renamed: [], heads: { gone: [], put: [] }, rows });
  for (const part of parts) {
    const all = rowsOf(part);
    for (let start = 0; start < all.length; start += SLICE) {
      const put = all.slice(start, start + SLICE).map((row, index): Put<Row> => {
        const before = all[start + index - 1];
        return { row, after: before ? before.id : null, at: start + index };
      });
      rows.push({ of: part.name, gone: [], put });
      count += put.length;
      if (count < SLICE) continue;
      yield slice();
      rows = [];
      count = 0;
    }
  }
  if (rows.length > 0) yield slice();
}

function misfit(key: string): never {
  throw new MisfitError(`“${key}” has changed meanwhile`);
}

/** @throws MisfitError where the list lacks a row that goes or changes, or has one that comes */
function applyToList<Row>(list: readonly Row[], { gone, put }: ListDelta<Row>, key: (row: Row) => string): Row[] {
  const leaving = new Set(gone);
  const standing = new Map<string, Row>();
  for (const row of list) if (!leaving.delete(key(row))) standing.set(key(row), row);
  for (const name of leaving) misfit(name);
  const arriving = new Map<string | null, Put<Row>[]>();
  const arrivingKeys = new Set<string>();
  for (const one of put) {
    const name = key(one.row);
    if (standing.has(name) !== (one.after === undefined) || arrivingKeys.has(name)) misfit(name);
    if (one.after === undefined) standing.set(name, one.row);
    else {
      arrivingKeys.add(name);
      arriving.set(one.after, [...(arriving.get(one.after) ?? []), one]);
    }
  }
  const result: Row[] = [];
  const place = (row: Row): void => {
    // Rows that follow each other may be thousands, more than calls may nest.
    const waiting = [row];
    for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
      result.push(next);
      const name = key(next);
      const followers = arriving.get(name) ?? [];
      arriving.delete(name);
      for (const { row: follower } of followers.toReversed()) waiting.push(follower);
    }
  };
  const first = arriving.get(null) ?? [];
  arriving.delete(null);
  for (const { row } of first) place(row);
  for (const row of standing.values()) place(row);
  // Rows whose neighbour is gone go to the index they had.
  for (const lost of [...arriving.values()].flat().filter(({ after }) => !arrivingKeys.has(after!))) {
    const tail = result.splice(Math.min(lost.at ?? result.length, result.length));
    place(lost.row);
    result.push(...tail);
  }
  return result;
}

function applyToParts<Whole extends Named, Head extends Named, Row extends WithId>(
  parts: readonly Whole[],
  delta: PartsDelta<Head, Row>,
  split: (whole: Whole) => Part<Head, Row>,
  join: (part: Part<Head, Row>) => Whole,
): readonly Whole[] {
  const { renamed, heads, rows } = delta;
  if (renamed.length + heads.gone.length + heads.put.length + rows.length === 0) return parts;
  const newName = new Map(renamed.map(({ from, to }) => [from, to]));
  const untouched = new Map(parts.map((whole) => [whole.name, whole]));
  for (const { from } of renamed) if (!untouched.has(from)) misfit(from);
  const now = parts.map((whole) => {
    const { head, rows: own } = split(whole);
    return { head: { ...head, name: newName.get(head.name) ?? head.name }, rows: own };
  });
  const rowsOf = new Map(now.map(({ head, rows: own }) => [head.name, own]));
  const result = applyToList(
    now.map(({ head }) => head),
    heads,
    nameOf,
  );
  const staying = new Set(result.map(nameOf));
  const rowDelta = new Map(rows.map((one) => [one.of, one]));
  for (const name of rowDelta.keys()) if (!staying.has(name) && !rowsOf.has(name)) misfit(name);
  const changedHeads = new Set([...heads.put.map(({ row }) => row.name), ...renamed.map(({ to }) => to)]);
  return result.map((head) => {
    const own = rowDelta.get(head.name);
    const whole = untouched.get(head.name);
    if (!own && !changedHeads.has(head.name) && whole) return whole;
    const list = rowsOf.get(head.name) ?? [];
    return join({ head, rows: own ? applyToList(list, own, idOf) : list });
  });
}

/**
 * Brings a document from where a delta begins to where it leads. Parts the delta does not speak of stay the same objects.
 * @throws MisfitError where the document is not as the delta needs it
 */
export function applyDelta(document: BotDocument, delta: Delta): BotDocument {
  const desks = delta.desks.gone.length + delta.desks.put.length;
  return {
    ...document,
    ...delta.settings,
    desks: desks === 0 ? document.desks : applyToList(document.desks, delta.desks, nameOf),
    entities: applyToParts(document.entities, delta.entities, splitEntity, ({ head, rows }) =>
      head.kind === 'list' ? { ...head, values: [...rows] } : head,
    ) as Entity[],
    intents: applyToParts(document.intents, delta.intents, splitIntent, ({ head, rows }) => ({
      ...head,
      utterances: [...rows],
    })) as Intent[],
    forms: applyToParts(document.forms, delta.forms, splitForm, ({ head, rows }) => ({
      ...head,
      slots: [...rows],
    })) as Form[],
  };
}

const touchedInList = <Row>(what: string, { gone, put }: ListDelta<Row>, key: (row: Row) => string): string[] =>
  [...gone, ...put.map(({ row }) => key(row))].map((name) => `${what} ${name}`);

function touchedInParts<Head extends Named, Row extends WithId>(
  what: string,
  row: string,
  { renamed, heads, rows }: PartsDelta<Head, Row>,
): string[] {
  return [
    ...renamed.flatMap(({ from, to }) => [`${what} ${from}`, `${what} ${to}`]),
    ...touchedInList(what, heads, nameOf),
    ...rows.flatMap((own) => touchedInList(row, own, idOf)),
  ];
}

/** Names everything that a delta touches: `intent order_tea`, `utterance u7`, `setting gate`. */
export function touchedBy({ settings, desks, entities, intents, forms }: Delta): string[] {
  const names = [
    ...Object.keys(settings).map((key) => `setting ${key}`),
    ...touchedInList('desk', desks, nameOf),
    ...touchedInParts('entity', 'value', entities),
    ...touchedInParts('intent', 'utterance', intents),
    ...touchedInParts('form', 'slot', forms),
  ];
  return [...new Set(names)];
}
