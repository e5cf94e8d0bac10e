import type { JsonLogicRule } from '$core/bot/document.js';

/** A condition of the plain kind: another slot holds a value. */
export interface PlainCondition {
  slot: string;
  value: string;
}

/** Reads a condition for the sheet: the plain kind, none, or another kind that the sheet shows as it stands. */
export function conditionOf(rule: JsonLogicRule | undefined): PlainCondition | 'other' | null {
  if (rule === undefined || rule === true) return null;
  if (typeof rule !== 'object' || Object.keys(rule).length !== 1) return 'other';
  const operands = rule['=='];
  if (!Array.isArray(operands) || operands.length !== 2) return 'other';
  const [left, right] = operands as unknown[];
  const slot = typeof left === 'object' && left !== null && 'var' in left ? left.var : null;
  return typeof slot === 'string' && typeof right === 'string' ? { slot, value: right } : 'other';
}

/** The rule of a plain condition. */
export const conditionRule = (slot: string, value: string): JsonLogicRule => ({ '==': [{ var: slot }, value] });
