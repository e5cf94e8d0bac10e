import type { BotDocument, Form, Intent } from '../bot/document.js';
import { conditionValue } from './conditionValue.js';
import { doubled } from './doubled.js';
import { emptyList } from './emptyList.js';
import { fewUtterances } from './fewUtterances.js';
import { mistaken } from './mistaken.js';
import { noDecline } from './noDecline.js';
import { noDone } from './noDone.js';
import { noPrompt } from './noPrompt.js';
import { noSlots } from './noSlots.js';
import type { Check, HeldOut, Looked, Note, Place, Remark, Unread } from './note.js';
import { oddText, remarksOnReplies } from './oddText.js';
import { isUnanswered, unanswered } from './unanswered.js';
import { unknownValue } from './unknownValue.js';
import { unmarkedSlot } from './unmarkedSlot.js';
import { unopened } from './unopened.js';
import { unread } from './unread.js';

/** Every check, in the order in which its remarks are shown. */
const CHECKS: readonly Check[] = [
  fewUtterances,
  unanswered,
  unopened,
  noSlots,
  noPrompt,
  emptyList,
  noDone,
  noDecline,
  oddText,
  conditionValue,
  doubled,
  unread,
  unmarkedSlot,
  mistaken,
  unknownValue,
];

/** A bot alone: what the model tells is not looked at. */
const alone = (document: BotDocument): Looked => ({ document, heldOut: [], unread: [] });

const noted =
  (check: string, where: Place) =>
  ({ place, ...remark }: Remark): Note => ({ ...remark, check, place: { ...where, ...place } });

/**
 * What an intent lacks, which of its utterances could not be read in full, and which intents it is mistaken for.
 * Gives `null` now and then, where others may go on.
 */
export function* intentNotes(
  document: BotDocument,
  intent: Intent,
  heldOut: readonly HeldOut[] = [],
  unreadLines: readonly Unread[] = [],
): Generator<Note | null, void> {
  const looked = { document, heldOut, unread: unreadLines };
  const where = { intent: intent.name };
  for (const { name, intent: look } of CHECKS) {
    if (!look) continue;
    const note = noted(name, where);
    for (const remark of look(looked, intent)) yield remark && note(remark);
    yield null;
  }
}

/** What a form lacks before it can do its work. */
export const formNotes = (document: BotDocument, form: Form): Note[] =>
  CHECKS.flatMap((check) => (check.form?.(alone(document), form) ?? []).map(noted(check.name, { form: form.name })));

/** What is odd about the texts of the whole bot. */
export const botNotes = (document: BotDocument): Note[] =>
  CHECKS.flatMap((check) => (check.bot?.(alone(document)) ?? []).map(noted(check.name, {})));

const isMissing = ({ weight }: { weight: Note['weight'] }): boolean => weight === 'missing';

/** Forms with something missing. */
export const incompleteForms = (document: BotDocument): string[] =>
  document.forms.filter((form) => formNotes(document, form).some(isMissing)).map((form) => form.name);

/** What keeps a bot from saying all that it has to say. */
export interface SayGaps {
  /** Forms with something missing. */
  forms: string[];
  /** Intents to which the bot has nothing to say. */
  intents: string[];
  /** How many remarks there are on texts of the whole bot, and on replies, that put in what is not there. */
  texts: number;
}

/** What was counted: an act counts it, and the screens that are loaded after it ask for the same document. */
const counted = new WeakMap<BotDocument, SayGaps>();

/** Counts what is missing; `null` for a bot that has nothing to say anything about yet. */
export function sayGaps(document: BotDocument): SayGaps | null {
  if (document.intents.length === 0 && document.forms.length === 0) return null;
  const gaps = counted.get(document) ?? countGaps(document);
  counted.set(document, gaps);
  return gaps;
}

function countGaps(document: BotDocument): SayGaps {
  return {
    forms: incompleteForms(document),
    intents: document.intents.filter((intent) => isUnanswered(document, intent)).map(({ name }) => name),
    texts: [...remarksOnReplies(document), ...botNotes(document)].filter(isMissing).length,
  };
}

/** How much a bot has nothing to say to; `null` where there is nothing to count yet. */
export function missingIn(document: BotDocument): number | null {
  const gaps = sayGaps(document);
  return gaps && gaps.forms.length + gaps.intents.length + gaps.texts;
}
