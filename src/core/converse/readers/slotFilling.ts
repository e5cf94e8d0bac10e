import { findEntity, type EntityKind, type Form } from '../../bot/document.js';
import { gatherValues } from '../../recognise/slots.js';
import { sameValue, type SlotValue } from '../../recognise/value.js';
import { asksQuestion } from '../phrases.js';
import { advance, applying, openForm, setValues, type Reader, type Turn } from '../turn.js';

/** Kinds whose value may be any words, so that the whole answer is taken when the slot was asked for. */
const TAKES_ANY_WORDS: readonly EntityKind[] = ['free', 'person', 'address', 'country'];
const LEAD_IN =
  /^(?:(?:um|uh|er|oh|ok|okay|yes|yeah|so|well|hi|please)[,.]? )*(?:(?:it'?s called|it is called|we'?re called|we are called|it'?s|it is|that'?s|that would be|this is|my name is|the name is|name'?s|i'?m|i am|we'?re|we are|called|deliver (?:it |them )?to|send (?:it |them )?to|to|put|make it|the address is|my address is|address is|i'?d like it to say|it should say)(?: |: ?))?/iu;
const TAIL = /[\s,.]*(?:please|thanks|thank you|cheers)?[\s.!]*$/iu;
const LONGEST_FREE_VALUE = 500;

/** The words of an answer that are its value. */
export function freeValue(text: string): string {
  const trimmed = text.trim();
  const value = trimmed.slice(LEAD_IN.exec(trimmed)?.[0].length ?? 0).replace(TAIL, '');
  return (value === '' ? trimmed : value).slice(0, LONGEST_FREE_VALUE);
}

/** Whether the slot that was asked for takes any words for its value. */
function takesAnyWords(turn: Turn, form: Form, asked: string | null): boolean {
  const slot = form.slots.find((candidate) => candidate.name === asked);
  const kind = findEntity(turn.document, slot?.entity ?? '')?.kind;
  return kind !== undefined && TAKES_ANY_WORDS.includes(kind);
}

/** Values for the slot that was asked for, and any others offered with it. */
export const slotFillingReader: Reader = {
  name: 'slot filling',
  read(turn) {
    const current = openForm(turn);
    if (current?.open.stage !== 'filling') return null;
    const { open, form } = current;
    const readings = turn.recogniser.readSlots(open.intent, turn.recognition, turn.vectors, open.asked);
    const given = gatherValues(turn.document, form, readings);
    const { recognition, folded } = turn;
    const other = recognition.decision === 'accept' && recognition.intent !== open.intent;
    const answersAsked = open.asked !== null && given[open.asked] !== undefined;
    const anyWords = !answersAsked && takesAnyWords(turn, form, open.asked);
    const staysInForm = answersAsked || anyWords || corrects(open.values, given);
    if (other && (asksQuestion(folded) || !staysInForm)) return null;
    if (anyWords && !corrects(open.values, given)) given[open.asked!] = freeValue(turn.text);
    const taken = applying(form, open.values, given);
    const names = Object.keys(taken);
    if (names.length === 0) return null;
    const set = setValues({ ...turn.state, tries: 0, choosing: null }, open, taken);
    const next = advance(turn, set.state);
    return { ...next, acts: [...set.acts, ...next.acts], why: `the message gives ${names.join(', ')}` };
  },
};

/** Whether an answer changes values that were already given, and so is a correction rather than free words. */
function corrects(held: Record<string, SlotValue>, given: Record<string, SlotValue>): boolean {
  return Object.entries(given).some(([slot, value]) => held[slot] !== undefined && !sameValue(held[slot], value));
}
