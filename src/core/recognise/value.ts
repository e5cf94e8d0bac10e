import type { Named } from '../text/named.js';
/** A sum of money. */
export interface Money {
  amount: number;
  /** ISO 4217. */
  currency: string;
}

/**
 * A value in canonical form: a list value's main form, a number, an ISO date, time, datetime or interval as text,
 * money as an object, a phone number in E.164 where the country is known; anything else as text.
 */
export type Value = string | number | Money;

/** What a slot holds: one value, or several where a message names several. */
export type SlotValue = Value | Value[];

export function sameValue(a: SlotValue | undefined, b: SlotValue | undefined): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

/** A value as it is shown in a sheet or said where no other form is asked for. */
export function showValue(value: SlotValue): string {
  if (Array.isArray(value)) {
    const parts = value.map(showValue);
    return parts.length < 2 ? parts.join('') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}`;
  }
  if (typeof value === 'object') return `${value.amount.toFixed(2)} ${value.currency}`;
  return String(value);
}

/** Values by the names of their slots. */
export type Values = Named<SlotValue>;
