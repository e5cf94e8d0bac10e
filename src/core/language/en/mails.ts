import type { MailWords } from '../language.js';

/** Signs of an address by the words they are said as. */
const SIGN: ReadonlyMap<string, string> = new Map([
  ['dot', '.'],
  ['point', '.'],
  ['stop', '.'],
  ['underscore', '_'],
  ['dash', '-'],
  ['hyphen', '-'],
]);
/** Words before an address that are no part of it. */
const STARTER =
  /^(?:is|its|to|on|at|email|mail|address|use|send|me|my|it|and|the|by|via|for|in|was|be|please|so|um|uh|er|yeah|yes)$/;

export const MAILS: MailWords = {
  signs: SIGN,
  isAt: (word) => word === 'at',
  leadsTo: (word) => STARTER.test(word),
};
