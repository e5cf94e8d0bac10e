import { describe, expect, it } from 'vitest';
import { hasParts, readStored, StoredError, writeStored, type StoredKind } from './stored.js';

interface Count {
  number: number;
  unit: string;
}

const COUNT: StoredKind<Count> = {
  name: 'count',
  version: 2,
  upgrade: (value, version) =>
    version === 0 ? { number: value, unit: 'piece' } : { unit: 'piece', ...(value as object) },
  is: (value): value is Count => hasParts(value, { number: 'number', unit: 'string' }),
};

describe('what is kept as JSON', () => {
  it('comes back as it was', () => {
    expect(readStored(COUNT, writeStored(COUNT, { number: 3, unit: 'box' }))).toEqual({ number: 3, unit: 'box' });
  });

  it('is brought up from earlier versions, also from before there were any', () => {
    expect(readStored(COUNT, '{"version":1,"value":{"number":3}}')).toEqual({ number: 3, unit: 'piece' });
    expect(readStored(COUNT, '3')).toEqual({ number: 3, unit: 'piece' });
  });

  it.each([
    ['is damaged', '{"version":2,"value":{"number":"three","unit":"box"}}', /damaged/],
    ['is cut short', '{"version":2,"va', /damaged/],
    ['is of a later version', '{"version":3,"value":{}}', /later version/],
  ])('and %s is refused with a sentence', (_, json, message) => {
    expect(() => readStored(COUNT, json)).toThrow(StoredError);
    expect(() => readStored(COUNT, json)).toThrow(message);
  });

  it('has its parts looked at by kind', () => {
    const value = { list: [], object: {}, string: '', number: 0 };
    expect(hasParts(value, { list: 'list', object: 'object', string: 'string', number: 'number' })).toBe(true);
    for (const kind of ['list', 'object', 'string', 'number'] as const) {
      expect(hasParts({ ...value, [kind]: null }, { [kind]: kind }), kind).toBe(false);
    }
    expect([hasParts(null, {}), hasParts([], {}), hasParts('a', {})]).toEqual([false, false, false]);
  });
});
