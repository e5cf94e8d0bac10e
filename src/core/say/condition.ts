import jsonLogic from 'json-logic-js';
import type { JsonLogicRule } from '../bot/document.js';
import type { SlotValue, Values } from '../recognise/value.js';
import { entriesOf } from '../text/named.js';

/** Operators of JsonLogic that a condition may use. None of them walks through lists, so each takes one step a part. */
const OPERATORS: ReadonlySet<string> = new Set([
  '==',
  '===',
  '!=',
  '!==',
  '<',
  '<=',
  '>',
  '>=',
  'in',
  'and',
  'or',
  '!',
  '!!',
  'var',
  'missing',
]);
const MOST_PARTS = 200;
const DEEPEST = 12;

const isRule = (part: unknown): part is Record<string, unknown> =>
  typeof part === 'object' && part !== null && !Array.isArray(part);

/** The operator of a rule and its operands; an operand alone is a list of one. */
function operation(rule: Record<string, unknown>): { operator: string; operands: unknown[] } | null {
  const keys = Object.keys(rule);
  if (keys.length !== 1) return null;
  const given = rule[keys[0]!];
  return { operator: keys[0]!, operands: Array.isArray(given) ? given : [given] };
}

/** The slot that a `var` names; `null` for anything else. */
function slotOf(part: unknown): string | null {
  if (!isRule(part)) return null;
  const own = operation(part);
  return own?.operator === 'var' && typeof own.operands[0] === 'string' ? own.operands[0] : null;
}

/** Why a condition cannot be used, in a sentence without its place; `null` for one that can. */
export function conditionFault(rule: unknown): string | null {
  let parts = 0;
  const look = (part: unknown, depth: number): string | null => {
    if (++parts > MOST_PARTS) return `a condition has at most ${MOST_PARTS} parts; make it shorter`;
    if (depth > DEEPEST) return 'the parts of the condition stand too deep in each other';
    if (Array.isArray(part)) return firstFault(part, depth);
    if (!isRule(part)) {
      return part === null || ['string', 'number', 'boolean'].includes(typeof part)
        ? null
        : 'it has a part that is no value';
    }
    const own = operation(part);
    if (!own) return 'each part of a condition has one operator, such as "=="';
    if (!OPERATORS.has(own.operator)) {
      return `there is no operator "${own.operator}" here; use ${[...OPERATORS].join(', ')}`;
    }
    if (own.operator === 'var' && slotOf(part) === null) return '"var" must name a slot';
    if (own.operator === 'missing' && !own.operands.every((name) => typeof name === 'string')) {
      return '"missing" must name slots';
    }
    return firstFault(own.operands, depth);
  };
  const firstFault = (list: readonly unknown[], depth: number): string | null => {
    for (const part of list) {
      const fault = look(part, depth + 1);
      if (fault !== null) return fault;
    }
    return null;
  };
  return typeof rule === 'boolean' || isRule(rule) ? look(rule, 0) : 'a condition is true, false or a rule';
}

/** A rule with each part put through `change`, from the outside inwards. */
function mapRule(rule: unknown, change: (rule: Record<string, unknown>) => Record<string, unknown>): unknown {
  if (Array.isArray(rule)) return rule.map((part) => mapRule(part, change));
  if (!isRule(rule)) return rule;
  return Object.fromEntries(Object.entries(change(rule)).map(([key, part]) => [key, mapRule(part, change)]));
}

function walkRule(rule: unknown, visit: (operator: string, operands: unknown[]) => void): void {
  if (Array.isArray(rule)) for (const part of rule) walkRule(part, visit);
  else if (isRule(rule)) {
    for (const [operator, given] of Object.entries(rule)) {
      visit(operator, Array.isArray(given) ? given : [given]);
      walkRule(given, visit);
    }
  }
}

/** The slots that a condition speaks of, each once. */
export function slotsIn(rule: unknown): string[] {
  const slots = new Set<string>();
  walkRule(rule, (operator, operands) => {
    if (operator === 'var' && typeof operands[0] === 'string') slots.add(operands[0]);
    if (operator === 'missing') for (const name of operands) if (typeof name === 'string') slots.add(name);
  });
  return [...slots];
}

/** A value that a condition compares a slot with. */
export interface ComparedValue {
  slot: string;
  value: string;
}

const COMPARING: ReadonlySet<string> = new Set(['==', '===', '!=', '!==', 'in']);

/** The texts that a condition compares slots with. */
export function valuesIn(rule: unknown): ComparedValue[] {
  const found: ComparedValue[] = [];
  walkRule(rule, (operator, operands) => {
    if (!COMPARING.has(operator)) return;
    const slot = operands.map(slotOf).find((name) => name !== null) ?? null;
    if (slot === null) return;
    for (const value of operands.flat()) if (typeof value === 'string') found.push({ slot, value });
  });
  return found;
}

/** The rule with another name for a slot. */
export function renameSlotInRule(rule: JsonLogicRule, from: string, to: string): JsonLogicRule {
  const renamed = (given: unknown): unknown =>
    Array.isArray(given) ? given.map((name: unknown) => (name === from ? to : name)) : given === from ? to : given;
  return mapRule(rule, (part) => {
    for (const operator of ['var', 'missing'] as const) {
      if (!Object.hasOwn(part, operator)) continue;
      const given = part[operator];
      // The second operand of `var` is a value, no name.
      if (operator === 'var' && Array.isArray(given))
        return { var: [renamed(given[0]), ...(given as unknown[]).slice(1)] };
      return { [operator]: renamed(given) };
    }
    return part;
  }) as JsonLogicRule;
}

/** The rule with other words for values that a slot is compared with. @param change gives the value to put in its place */
export function changeValuesInRule(
  rule: JsonLogicRule,
  change: (slot: string, value: string) => string,
): JsonLogicRule {
  return mapRule(rule, (part) => {
    const own = operation(part);
    if (!own || !COMPARING.has(own.operator)) return part;
    const slot = own.operands.map(slotOf).find((name) => name !== null) ?? null;
    if (slot === null) return part;
    const changed = (value: unknown): unknown =>
      typeof value === 'string' ? change(slot, value) : Array.isArray(value) ? value.map(changed) : value;
    return { [own.operator]: own.operands.map(changed) };
  }) as JsonLogicRule;
}

/** A value as conditions compare it: a sum of money by its amount. */
const comparable = (value: SlotValue): unknown =>
  Array.isArray(value)
    ? value.length === 1
      ? comparable(value[0]!)
      : value.map(comparable)
    : typeof value === 'object'
      ? value.amount
      : value;

/** Whether a condition holds for the values of a form. One that cannot be used does not hold. Never throws. */
export function holds(rule: JsonLogicRule | undefined, values: Values): boolean {
  if (rule === undefined || typeof rule === 'boolean') return rule ?? true;
  if (conditionFault(rule) !== null) return false;
  // Without a prototype, so that a slot named `constructor` is empty until something is put in.
  const data = Object.create(null) as Record<string, unknown>;
  for (const [slot, value] of entriesOf(values)) data[slot] = comparable(value);
  return Boolean(jsonLogic.apply(rule as Parameters<typeof jsonLogic.apply>[0], data));
}

/** How a row of a condition compares a slot. */
export type Comparison = 'is' | 'is not' | 'one of' | 'is given' | 'is not given' | 'more than' | 'less than';

/** A condition as it is built on a screen. */
export interface ConditionRow {
  slot: string;
  comparison: Comparison;
  /** One value; several for `one of`; none for `is given`. */
  values: (string | number)[];
}

/** A condition in rows, of which all or any must hold. */
export interface ConditionRows {
  join: 'all' | 'any';
  rows: ConditionRow[];
}

const isValue = (part: unknown): part is string | number => typeof part === 'string' || typeof part === 'number';

function rowOf(part: unknown): ConditionRow | null {
  if (!isRule(part)) return null;
  const own = operation(part);
  if (!own) return null;
  const [left, right] = own.operands;
  const slot = slotOf(left);
  if (own.operator === '!!' && slot !== null) return { slot, comparison: 'is given', values: [] };
  if (own.operator === '!' && slot !== null) return { slot, comparison: 'is not given', values: [] };
  if (slot === null || own.operands.length !== 2) return null;
  if (own.operator === 'in') {
    return Array.isArray(right) && right.every(isValue) ? { slot, comparison: 'one of', values: right } : null;
  }
  const comparison = (
    { '==': 'is', '===': 'is', '!=': 'is not', '!==': 'is not', '>': 'more than', '<': 'less than' } as const
  )[own.operator];
  return comparison && isValue(right) ? { slot, comparison, values: [right] } : null;
}

/** Reads a condition as rows; `null` for one that rows cannot show. */
export function rowsOf(rule: JsonLogicRule | undefined): ConditionRows | null {
  if (rule === undefined || rule === true) return { join: 'all', rows: [] };
  if (!isRule(rule)) return null;
  const own = operation(rule);
  const joined = own?.operator === 'and' || own?.operator === 'or';
  const rows = (joined ? own.operands : [rule]).map(rowOf);
  if (rows.some((row) => row === null)) return null;
  return { join: own?.operator === 'or' ? 'any' : 'all', rows: rows as ConditionRow[] };
}

function ruleOfRow({ slot, comparison, values }: ConditionRow): Record<string, unknown> {
  const held = { var: slot };
  switch (comparison) {
    case 'is':
      return { '==': [held, values[0] ?? ''] };
    case 'is not':
      return { '!=': [held, values[0] ?? ''] };
    case 'one of':
      return { in: [held, values] };
    case 'is given':
      return { '!!': held };
    case 'is not given':
      return { '!': held };
    case 'more than':
      return { '>': [held, values[0] ?? 0] };
    case 'less than':
      return { '<': [held, values[0] ?? 0] };
  }
}

/** The rule of a condition in rows; `null` for no rows, which is no condition. */
export function ruleOf({ join, rows }: ConditionRows): JsonLogicRule | null {
  if (rows.length === 0) return null;
  const rules = rows.map(ruleOfRow);
  return rules.length === 1 ? rules[0]! : { [join === 'all' ? 'and' : 'or']: rules };
}
