import { sql, type Transaction } from 'kysely';
import type { ListDelta, PartsDelta, Put } from '../../core/bot/delta.js';
import type { Database } from '../database/schema.js';
import { inBatches } from '../slices.js';

export type Connection = Transaction<Database>;

/** How the rows of one kind are kept. */
interface RowTable<Row> {
  table: 'desk' | 'entity' | 'intent' | 'form' | 'entity_value' | 'utterance' | 'slot';
  /** The column that names the part a row belongs to; `null` for rows of the bot itself. */
  owner: 'entity_id' | 'intent_id' | 'form_id' | null;
  key: 'id' | 'name';
  columns: (row: Row) => Record<string, unknown>;
  /** Writes what a row has in tables of its own. */
  writeMore: (db: Connection, botId: number, rows: readonly Row[]) => Promise<void>;
}

/** How rows are kept; without `writeMore` they have no tables of their own. */
export const rowsOf = <Row>(
  of: Omit<RowTable<Row>, 'writeMore'> & Partial<Pick<RowTable<Row>, 'writeMore'>>,
): RowTable<Row> => ({ writeMore: () => Promise.resolve(), ...of });

/** The rows of a list, in the part that they belong to. */
interface RowList<Row> {
  of: RowTable<Row>;
  ownerId: number | null;
}

/** Rows closer together than this are placed anew. */
const CLOSEST = 1e-6;

const ofOwner = ({ owner }: RowTable<never>, ownerId: number | null) =>
  owner === null ? sql`true` : sql`${sql.ref(owner)} = ${ownerId}`;

/** Gives the rows of a list whole numbers for places again. */
async function placeAnew(db: Connection, botId: number, of: RowTable<never>, ownerId: number | null): Promise<void> {
  const [table, key] = [sql.table(of.table), sql.ref(of.key)];
  await sql`with ranked as (
      select ${key} as own_key, row_number() over (order by place) as number from ${table}
      where bot_id = ${botId} and ${ofOwner(of, ownerId)})
    update ${table} set place = ranked.number from ranked
    where bot_id = ${botId} and ${ofOwner(of, ownerId)} and ${key} = ranked.own_key`.execute(db);
}

/** Places for a number of rows after a row of a list, or before all. */
async function placesAfter(
  db: Connection,
  botId: number,
  of: RowTable<never>,
  { ownerId, after, count }: { ownerId: number | null; after: string | null; count: number },
): Promise<number[]> {
  const [table, key] = [sql.table(of.table), sql.ref(of.key)];
  const own = sql`bot_id = ${botId} and ${ofOwner(of, ownerId)}`;
  const find = async () => {
    const low =
      after === null
        ? null
        : (await sql<{ place: number }>`select place from ${table} where ${own} and ${key} = ${after}`.execute(db))
            .rows[0]!.place;
    const above = low === null ? sql`true` : sql`place > ${low}`;
    const next = await sql<{ place: number | null }>`
      select min(place) as place from ${table} where ${own} and ${above}`.execute(db);
    const high = next.rows[0]!.place;
    return { low, high };
  };
  let { low, high } = await find();
  if (low !== null && high !== null && (high - low) / (count + 1) < CLOSEST) {
    await placeAnew(db, botId, of, ownerId);
    ({ low, high } = await find());
  }
  const from = low ?? (high ?? 1) - count - 1;
  const step = low !== null && high !== null ? (high - low) / (count + 1) : 1;
  return Array.from({ length: count }, (_, index) => from + step * (index + 1));
}

/** New rows in runs that follow each other. */
function runsOf<Row>(put: readonly Put<Row>[], key: (row: Row) => string): { after: string | null; rows: Row[] }[] {
  const runs: { after: string | null; rows: Row[] }[] = [];
  let last: string | null | undefined;
  for (const { row, after } of put) {
    if (after === undefined) continue;
    if (runs.length > 0 && after !== null && after === last) runs.at(-1)!.rows.push(row);
    else runs.push({ after, rows: [row] });
    last = key(row);
  }
  return runs;
}

async function takeAway<Row>(db: Connection, botId: number, { table, key }: RowTable<Row>, gone: readonly string[]) {
  await inBatches(gone, (batch) =>
    sql`delete from ${sql.table(table)} where bot_id = ${botId} and ${sql.ref(key)} in (${sql.join(batch)})`.execute(
      db,
    ),
  );
}

async function putRows<Row>(
  db: Connection,
  botId: number,
  { of, ownerId }: RowList<Row>,
  put: readonly Put<Row>[],
): Promise<void> {
  const keyOf = (row: Row) => (row as Record<string, string>)[of.key]!;
  for (const { row, after } of put) {
    if (after !== undefined) continue;
    const changes = Object.entries(of.columns(row)).map(([column, value]) => sql`${sql.ref(column)} = ${value}`);
    await sql`update ${sql.table(of.table)} set ${sql.join(changes)}
      where bot_id = ${botId} and ${sql.ref(of.key)} = ${keyOf(row)}`.execute(db);
  }
  for (const { after, rows } of runsOf(put, keyOf)) {
    const places = await placesAfter(db, botId, of, { ownerId, after, count: rows.length });
    const whole = rows.map((row, index) => ({
      bot_id: botId,
      ...(of.owner === null ? {} : { [of.owner]: ownerId }),
      place: places[index]!,
      ...of.columns(row),
    }));
    await inBatches(whole, (batch) =>
      db
        .insertInto(of.table)
        .values(batch as never)
        .execute(),
    );
  }
  await of.writeMore(
    db,
    botId,
    put.map(({ row }) => row),
  );
}

/** Brings a list to where a delta leads. */
export async function writeList<Row>(
  db: Connection,
  botId: number,
  list: RowList<Row>,
  { gone, put }: ListDelta<Row>,
): Promise<void> {
  await takeAway(db, botId, list.of, gone);
  await putRows(db, botId, list, put);
}

/** Brings parts and the rows they have to where a delta leads. Rows go before any come: one may move to another part. */
export async function writeParts<Head extends { name: string }, Row>(
  db: Connection,
  botId: number,
  kept: { heads: RowTable<Head>; rows: RowTable<Row> },
  { renamed, heads, rows }: PartsDelta<Head, Row>,
): Promise<void> {
  const table = sql.table(kept.heads.table);
  for (const { from, to } of renamed) {
    await sql`update ${table} set name = ${to} where bot_id = ${botId} and name = ${from}`.execute(db);
  }
  for (const { gone } of rows) await takeAway(db, botId, kept.rows, gone);
  await writeList(db, botId, { of: kept.heads, ownerId: null }, heads);
  for (const { of, put } of rows) {
    if (put.length === 0) continue;
    const found = await sql<{ id: number }>`select id from ${table} where bot_id = ${botId} and name = ${of}`.execute(
      db,
    );
    await putRows(db, botId, { of: kept.rows, ownerId: found.rows[0]!.id }, put);
  }
}
