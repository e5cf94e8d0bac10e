import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dropHeld, entriesOf, heldBy, heldOf, putHeld, withoutHeld, type Named } from './named.js';

/** Names of all sorts, and those that every object has from its making. */
const name = fc.oneof(
  fc.constantFrom('__proto__', 'constructor', 'toString', 'valueOf', 'hasOwnProperty', 'prototype', 'a'),
  fc.string({ maxLength: 4 }),
);
/** A list that begins with figures is put in order by every object; what is held has no order to speak of. */
const held = fc.array(fc.tuple(name, fc.nat()), { maxLength: 8 });

describe('what is held by name', () => {
  it('is what was put there, whatever the names, and as plain data', () => {
    fc.assert(
      fc.property(held, name, fc.nat(), (entries, other, value) => {
        const wanted = new Map(entries);
        const own = heldBy(entries);
        const same = (one: Named<number>, all: ReadonlyMap<string, number>) => {
          for (const key of [...all.keys(), other]) expect(heldOf(one, key)).toBe(all.get(key));
          expect(new Map(entriesOf(one))).toEqual(all);
          expect(new Map(entriesOf(JSON.parse(JSON.stringify(one)) as Named<number>))).toEqual(all);
          expect(new Map(entriesOf(structuredClone(one)))).toEqual(all);
        };
        same(own, wanted);
        same({ ...own }, wanted);
        same({ ...own, ...heldBy([[other, value]]) }, new Map([...wanted, [other, value]]));
        same(withoutHeld(own, other), new Map([...wanted].filter(([key]) => key !== other)));
        putHeld(own, other, value);
        same(own, new Map([...wanted, [other, value]]));
        dropHeld(own, other);
        same(own, new Map([...wanted].filter(([key]) => key !== other)));
      }),
    );
  });
});
