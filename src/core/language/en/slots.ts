import type { EntityKind } from '../../bot/document.js';
import type { SlotNames } from '../talk.js';

/** What customers call a value by its kind, where a form has one of that kind. */
const CALLED: Partial<Record<EntityKind, RegExp>> = {
  date: /^(?:day|date)s?$/,
  time: /^(?:time|hour)s?$/,
  number: /^(?:amount|quantity)s?$/,
  pattern: /^(?:number|code|reference|ref)s?$/,
  person: /^names?$/,
  address: /^(?:address(?:es)?|place|street)$/,
  email: /^(?:email|mail)s?$/,
  phone: /^(?:phone|number|mobile)s?$/,
  money: /^(?:price|amount|sum|budget)s?$/,
};
/** Words of a slot's name that do not name it by themselves. */
const NO_NAME = /^(?:new|old|the|how|many|for|and|your|our|first|last|other|wanted)$/;

export const SLOTS: SlotNames = {
  called: (kind, word) => CALLED[kind]?.test(word) ?? false,
  isAmount: (word) => word === 'number',
  namesNothing: (word) => NO_NAME.test(word),
  plural: (word) => `${word}s`,
};
