import { clarifyOf, formOfIntent } from '../../bot/document.js';
import { actOnWishes } from '../act.js';
import type { Language } from '../../language/language.js';
import { foldPhrase } from '../../text/foldPhrase.js';
import { codesPointedAt } from '../pointing.js';
import type { OfferedIntent } from '../state.js';
import {
  countMiss,
  generalDesk,
  handOver,
  intentLabel,
  listWords,
  sayClarification,
  sayOwn,
  slotWords,
  valueWords,
  type Reader,
  type Reply,
  type Turn,
} from '../turn.js';
import { acceptedIn, isSmallTalk, onlyValues, storyFor, valuesFor, offeredCandidates } from '../wishes.js';
import { missReader } from './miss.js';
import { entriesOf } from '../../text/named.js';

const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** An intent the gate is not sure of, when no form is open: asks which of those in reach is meant. */
export const clarificationReader: Reader = {
  name: 'clarification',
  read(turn) {
    const { matter, state } = turn;
    if (matter.decision !== 'ask' || state.open || state.choosing !== null || turn.hearing.onlySteers) return null;
    const candidates = offeredCandidates(turn);
    const { asks, single } = clarifyOf(turn.document.gate);
    if (candidates.length === 0 || state.clarified >= asks) return null;
    const [only, ...others] = candidates;
    if (single === 'take' && others.length === 0) {
      const taken = sayOwn(turn, 'takenFor', { choices: intentLabel(turn, only!) });
      const why = `${only} alone is likely, and taken (${percent(matter.confidence)})`;
      return actOnWishes(turn, [{ intent: only! }], why, taken);
    }
    const choosing = candidates.map((intent) => {
      const form = formOfIntent(turn.document, intent);
      const meant = form ? codesPointedAt(turn, form) : {};
      return { intent, values: { ...meant, ...storyFor(turn, intent), ...valuesFor(turn, intent).given } };
    });
    return {
      state: { ...state, choosing, clarified: state.clarified + 1, outcome: null },
      says: sayClarification(turn, candidates),
      acts: [],
      why: `unsure between ${candidates.join(', ')} (best ${percent(matter.confidence)})`,
    };
  },
};

const contentWords = (words: string, { clauses }: Language): string[] =>
  foldPhrase(words)
    .replace('?', '')
    .split(' ')
    .filter((word) => word !== '' && !clauses.isLittle(word));

/** The one option that some words name: all of them are words of its name, and of no other's. */
function namedOption(turn: Turn, offered: readonly OfferedIntent[]): OfferedIntent | undefined {
  const said = contentWords(turn.text, turn.language);
  if (said.length === 0) return undefined;
  const namesOf = (intent: string) =>
    new Set([...[intentLabel(turn, intent), slotWords(intent)].flatMap((name) => contentWords(name, turn.language))]);
  const exact = offered.filter(({ intent }) => {
    const folded = turn.hearing.folded.replace('?', '');
    return folded === foldPhrase(intentLabel(turn, intent)) || folded === foldPhrase(slotWords(intent));
  });
  if (exact.length === 1) return exact[0];
  const fitting = offered.filter(({ intent }) => {
    const own = namesOf(intent);
    return said.every((word) => own.has(word));
  });
  return fitting.length === 1 ? fitting[0] : undefined;
}

/** Options whose form takes the values that are all a message says. */
const fittingOptions = (turn: Turn, offered: readonly OfferedIntent[]): OfferedIntent[] =>
  offered.filter(({ intent }) => formOfIntent(turn.document, intent) !== undefined && onlyValues(turn, intent));

function chosenBy(turn: Turn, offered: readonly OfferedIntent[]): OfferedIntent | undefined {
  const { hearing, matter } = turn;
  const named = namedOption(turn, offered);
  if (named) return named;
  const place = turn.language.figures.placeNamed(hearing.folded, offered.length);
  if (place !== null) return offered[place];
  if (offered.length === 1 && hearing.says('yes', 'ok') && !hearing.says('no')) return offered[0];
  const accepted = acceptedIn(matter);
  const meant = hearing.onlySteers ? undefined : offered.find(({ intent }) => intent === accepted);
  if (meant) return meant;
  const fitting = fittingOptions(turn, offered);
  return fitting.length === 1 ? fitting[0] : leaningTo(turn, offered);
}

/** How many times as likely as any other option one has to be for a message to be taken for it. */
const LEANS = 3;

/**
 * The option that a message speaks of though the bot is not sure of it: it was asked for one of these, and this is by
 * far the likeliest of all intents.
 */
function leaningTo({ hearing, matter }: Turn, offered: readonly OfferedIntent[]): OfferedIntent | undefined {
  const [first, ...rest] = matter.ranking;
  if (matter.decision !== 'ask' || hearing.onlySteers || hearing.says('no')) return undefined;
  const isFar = rest.every(({ confidence }) => LEANS * confidence <= first!.confidence);
  return isFar ? offered.find(({ intent }) => intent === first!.intent) : undefined;
}

/** Asks again, with what the message gave kept for the options it fits. */
function askWhichAgain(turn: Turn, offered: readonly OfferedIntent[], why: string): Reply {
  const given = new Map(
    fittingOptions(turn, offered).map(({ intent }) => [intent, valuesFor(turn, intent).given] as const),
  );
  const choosing = offered.map((option) => ({ ...option, values: { ...option.values, ...given.get(option.intent) } }));
  const names = offered.map(({ intent }) => intent);
  if (given.size === 0) {
    const doing = countMiss(turn, (state) => ({ state, says: sayClarification(turn, names, state.tries), acts: [] }));
    return { ...doing, why };
  }
  // What fits an option is no failed try.
  const values = [...given.values()].flatMap((own) => entriesOf(own).map(([, value]) => valueWords(turn, value)));
  const noted = sayOwn(turn, 'noted', { values: listWords(turn, [...new Set(values)], 'conjunction') });
  return {
    state: { ...turn.state, choosing },
    says: [...noted, ...sayClarification(turn, names)],
    acts: [],
    why: 'the answer fits more than one of the choices',
  };
}

/** The answer to "which do you mean": a name, a place in the list, other words for it, or simply its details. */
export const choiceReader: Reader = {
  name: 'choice',
  read(turn) {
    const { choosing } = turn.state;
    if (choosing === null) return null;
    const { hearing, matter } = turn;
    if (hearing.says('both') && hearing.onlySteers && choosing.length > 1) {
      const wishes = choosing.map(({ intent, values }) => ({ intent, held: values, within: [] }));
      return actOnWishes(turn, wishes, 'the customer means both');
    }
    if (hearing.onlySteers && hearing.says('no', 'neither', 'nothing')) {
      const state = { ...turn.state, choosing: null };
      const why = 'the customer means none of those offered';
      const desk = generalDesk(turn.document);
      const { neither } = clarifyOf(turn.document.gate);
      if (neither === 'desk' && desk !== undefined) return { ...handOver(turn, state, desk), why };
      return { ...missReader.read({ ...turn, state })!, why };
    }
    const chosen = chosenBy(turn, choosing);
    if (chosen) {
      const whole = hearing.onlySteers ? [] : hearing.content;
      const wish = { intent: chosen.intent, held: chosen.values, within: whole };
      return actOnWishes(
        { ...turn, state: { ...turn.state, choosing: null, clarified: 0 } },
        [wish],
        `the customer chose ${chosen.intent}`,
      );
    }
    const accepted = hearing.onlySteers ? null : acceptedIn(matter);
    if (accepted !== null && !isSmallTalk(turn, accepted)) return null;
    return askWhichAgain(turn, choosing, 'the answer is none of the choices');
  },
};
