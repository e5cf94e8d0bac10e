import fc from 'fast-check';
import { describe, expect, it, vi } from 'vitest';
import {
  changeValuesInRule,
  conditionFault,
  holds as holdsFor,
  renameSlotInRule,
  rowsOf,
  ruleOf,
  slotsIn,
  valuesIn,
  type ConditionRow,
} from './condition.js';
import type { SlotValue } from '../recognise/value.js';
import { namedAs } from '../text/named.js';

const holds = (rule: Parameters<typeof holdsFor>[0], values: Record<string, SlotValue>) =>
  holdsFor(rule, namedAs(values));

const whenDelivered = { '==': [{ var: 'way' }, 'delivery'] };

describe('a condition', () => {
  it('holds by the values of the form', () => {
    expect(holds(whenDelivered, { way: 'delivery' })).toBe(true);
    expect(holds(whenDelivered, { way: 'collection' })).toBe(false);
    expect(holds(whenDelivered, {})).toBe(false);
    expect(holds({ '>': [{ var: 'price' }, 20] }, { price: { amount: 25, currency: 'GBP' } })).toBe(true);
    expect(holds(undefined, {})).toBe(true);
    expect(holds(false, {})).toBe(false);
  });

  it('sees own values alone: a slot named like a property of every object is empty', () => {
    for (const slot of ['constructor', 'toString', '__proto__'])
      expect(holds({ '!!': { var: slot } }, {}), slot).toBe(false);
    expect(holds({ '!!': { var: 'constructor' } }, { constructor: 'mint' })).toBe(true);
  });

  it.each([
    [{ log: 'x' }, /no operator "log"/],
    [{ map: [[1, 2], { map: [[1, 2], 1] }] }, /no operator "map"/],
    [{ '==': [{ var: 1 }, 2] }, /must name a slot/],
    [{ a: 1, b: 2 }, /one operator/],
    [7, /true, false or a rule/],
    [{ and: Array.from({ length: 300 }, () => ({ var: 'a' })) }, /at most 200 parts/],
    [Array.from({ length: 20 }).reduce<object>((rule) => ({ '!': [rule] }), { var: 'a' }), /too deep/],
  ])('is refused where it could do more than compare: %j', (rule, message) => {
    expect(conditionFault(rule)).toMatch(message);
    expect(holds(rule as never, { a: 1 })).toBe(false);
  });

  it('writes nothing to the console', () => {
    const log = vi.spyOn(console, 'log').mockImplementation(() => undefined);
    holds({ log: 'seen' }, {});
    expect(log).not.toHaveBeenCalled();
    log.mockRestore();
  });

  it('tells the slots and values that it speaks of', () => {
    const rule = {
      or: [{ in: [{ var: 'way' }, ['post', 'courier']] }, { missing: ['name'] }, { '>': [{ var: ['n', 0] }, 1] }],
    };
    expect(slotsIn(rule)).toEqual(['way', 'name', 'n']);
    expect(valuesIn(rule)).toEqual([
      { slot: 'way', value: 'post' },
      { slot: 'way', value: 'courier' },
    ]);
  });

  it('follows a slot and a value that are called otherwise', () => {
    const rule = { and: [whenDelivered, { missing: ['way'] }, { '!=': [{ var: ['way', 'way'] }, 'way'] }] };
    expect(renameSlotInRule(rule, 'way', 'handover')).toEqual({
      and: [
        { '==': [{ var: 'handover' }, 'delivery'] },
        { missing: ['handover'] },
        { '!=': [{ var: ['handover', 'way'] }, 'way'] },
      ],
    });
    const byMail = (slot: string, value: string) => (slot === 'way' && value === 'delivery' ? 'by mail' : value);
    expect(changeValuesInRule(whenDelivered, byMail)).toEqual({ '==': [{ var: 'way' }, 'by mail'] });
  });
});

describe('a condition in rows', () => {
  const row = fc.record<ConditionRow>({
    slot: fc.constantFrom('way', 'amount'),
    comparison: fc.constantFrom('is' as const, 'is not' as const, 'more than' as const, 'less than' as const),
    values: fc.tuple(fc.oneof(fc.constantFrom('post', 'collect'), fc.nat(9))),
  });

  it('is the same rule when it is read and written', () => {
    fc.assert(
      fc.property(
        fc.array(row, { minLength: 1, maxLength: 4 }),
        fc.constantFrom('all' as const, 'any' as const),
        (rows, join) => {
          const rule = ruleOf({ join, rows });
          expect(rowsOf(rule!)).toEqual({ join: rows.length > 1 ? join : 'all', rows });
        },
      ),
    );
  });

  it('has rows for what is given and for one of several', () => {
    const rows: ConditionRow[] = [
      { slot: 'way', comparison: 'one of', values: ['post', 'courier'] },
      { slot: 'name', comparison: 'is given', values: [] },
      { slot: 'note', comparison: 'is not given', values: [] },
    ];
    expect(rowsOf(ruleOf({ join: 'all', rows })!)).toEqual({ join: 'all', rows });
    expect(rowsOf(undefined)).toEqual({ join: 'all', rows: [] });
    expect(ruleOf({ join: 'all', rows: [] })).toBeNull();
  });

  it('is not made of a rule that rows cannot show', () => {
    expect(rowsOf({ '!': { and: [whenDelivered] } })).toBeNull();
    expect(rowsOf({ and: [whenDelivered, { or: [whenDelivered, whenDelivered] }] })).toBeNull();
  });
});
