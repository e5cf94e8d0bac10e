/** Something kept as JSON, with the versions it has had. */
export interface StoredKind<T> {
  /** What it is, for a fault. */
  name: string;
  /** The version that is written. */
  version: number;
  /** Brings a value of an earlier version to this one; what was kept before there were versions is of version 0. */
  upgrade: (value: unknown, version: number) => unknown;
  /** Whether a value has the parts that are relied on. */
  is: (value: unknown) => value is T;
}

/** What is kept cannot be read: it is damaged, or of a later version of the program. */
export class StoredError extends Error {}

export const writeStored = <T>({ version }: StoredKind<T>, value: T): string => JSON.stringify({ version, value });

/** @throws StoredError */
export function readStored<T>({ name, version: newest, upgrade, is }: StoredKind<T>, json: string): T {
  let parsed: unknown;
  try {
    parsed = JSON.parse(json);
  } catch {
    throw new StoredError(`The ${name} that was kept is damaged.`);
  }
  const { version, value } = wrapped(parsed) ?? { version: 0, value: parsed };
  if (version > newest) throw new StoredError(`The ${name} was kept by a later version of the program.`);
  const upgraded = version < newest ? upgrade(value, version) : value;
  if (!is(upgraded)) throw new StoredError(`The ${name} that was kept is damaged.`);
  return upgraded;
}

function wrapped(value: unknown): { version: number; value: unknown } | null {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return null;
  const { version, ...rest } = value as { version?: unknown; value?: unknown };
  return typeof version === 'number' && Object.keys(rest).join() === 'value' ? { version, value: rest.value } : null;
}

/** Whether a value is an object with lists, texts, numbers and objects under the names given. */
export function hasParts(
  value: unknown,
  parts: Readonly<Record<string, 'list' | 'object' | 'string' | 'number'>>,
): boolean {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return false;
  return Object.entries(parts).every(([name, kind]) => {
    const part = (value as Record<string, unknown>)[name];
    if (kind === 'list') return Array.isArray(part);
    if (kind === 'object') return typeof part === 'object' && part !== null && !Array.isArray(part);
    return typeof part === kind;
  });
}
