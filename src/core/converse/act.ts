import { findIntent, formOfIntent } from '../bot/document.js';
import { codesPointedAt } from './pointing.js';
import type { ConversationState, OfferedIntent, Say } from './state.js';
import {
  advance,
  complete,
  emptyForm,
  goOn,
  handOver,
  onlyReplies,
  replyOf,
  sayOwn,
  setValues,
  withWaiting,
  type Doing,
  type Reply,
  type Turn,
} from './turn.js';
import type { GivenValues } from './values.js';
import { storyFor, valuesFor, type Stretches } from './wishes.js';
import { tellAbout } from './tell.js';

/** An intent to be acted on. */
export interface Wanted {
  intent: string;
  /** The words that speak of it; the whole message where it is left out, none of it where empty. */
  within?: Stretches;
  /** Values for its form from an earlier message. */
  held?: OfferedIntent['values'];
  /** Said first. */
  before?: Say[];
  /** Likely only: it is offered. */
  unsure?: true;
}

/** What is said to an intent that only replies. */
function answerOf(turn: Turn, wanted: OfferedIntent): Say[] {
  const says = replyOf(turn, wanted);
  return says.length > 0 ? says : sayOwn(turn, 'noAnswer');
}

/** Acts on an intent: says its reply, opens its form, or hands it to its desk. A form that is open is put aside. */
export function actOnIntent(turn: Turn, { intent: name, within, held = {}, before = [] }: Wanted): Doing {
  const intent = findIntent(turn.document, name)!;
  const form = formOfIntent(turn.document, name);
  const aside = turn.state.open;
  const putOff = turn.state.choosing?.some((option) => option.intent === name) ? null : turn.state.choosing;
  const state: ConversationState = {
    ...turn.state,
    open: null,
    parked: aside ? [...turn.state.parked, aside] : turn.state.parked,
    choosing: null,
    unsettled: putOff ?? turn.state.unsettled,
    offered: null,
    tries: 0,
    outcome: null,
  };
  const gathered: GivenValues = valuesFor(turn, name, within ? { within } : {});
  const meant = form ? codesPointedAt(turn, form, within) : {};
  const given = { ...meant, ...storyFor(turn, name, within), ...held, ...gathered.given };
  if (!form) {
    if (intent.desk !== undefined) {
      const handed = handOver(turn, state, intent.desk);
      return { ...handed, says: [...before, ...replyOf(turn, { intent: name, values: given }), ...handed.says] };
    }
    const answer = answerOf(turn, { intent: name, values: given });
    return goOn(turn, { ...state, outcome: 'completed' }, [...before, ...answer], []);
  }
  const opened = { ...state, open: emptyForm(name, form.name) };
  const set = setValues(turn, opened, given);
  // What only tells something is not read back in the middle of something else.
  const asksNothing =
    (aside !== null || putOff !== null) && form.slots.every((slot) => !slot.required) && gathered.between === null;
  const next = asksNothing
    ? complete(turn, set.state)
    : (tellAbout(turn, set.state, gathered) ?? advance(turn, set.state));
  return {
    ...next,
    says: [...before, ...replyOf(turn, { intent: name, values: given }), ...next.says],
    acts: [{ act: 'openForm', form: form.name, intent: name }, ...set.acts, ...next.acts],
  };
}

const goesToDesk = ({ document }: Turn, { intent }: Wanted): boolean =>
  (formOfIntent(document, intent)?.desk ?? findIntent(document, intent)?.desk) !== undefined;

/** What a desk takes over ends what the bot does, so it comes after all else. */
const handingOverLast = (turn: Turn, wishes: readonly Wanted[]): Wanted[] => [
  ...wishes.filter((wish) => !goesToDesk(turn, wish)),
  ...wishes.filter((wish) => goesToDesk(turn, wish)),
];

/**
 * Acts on the wishes of a message: what only replies is said at once, the first of the others is done, and the rest is
 * kept to be offered.
 */
export function actOnWishes(turn: Turn, wishes: readonly Wanted[], why: string, before: Say[] = []): Reply {
  // A wish that is likely only is not lost to a desk: its form reads back before it does anything.
  const certain = wishes.filter(({ unsure }) => !unsure);
  const mayBe = certain.some((wish) => goesToDesk(turn, wish))
    ? wishes.filter(({ intent, unsure }) => unsure && formOfIntent(turn.document, intent)?.confirm !== undefined)
    : [];
  const sure = [...certain, ...mayBe];
  const [said, done, unsure] = [
    sure.filter(({ intent }) => onlyReplies(turn.document, intent)),
    handingOverLast(
      turn,
      sure.filter(({ intent }) => !onlyReplies(turn.document, intent)),
    ),
    wishes.filter((wish) => !sure.includes(wish)),
  ];
  const valuesOf = ({ intent, within, held = {} }: Wanted): OfferedIntent => ({
    intent,
    values: { ...held, ...valuesFor(turn, intent, within ? { within } : {}).given, ...storyFor(turn, intent, within) },
  });
  const [first, ...rest] = done;
  const replies = said.flatMap((wish) => answerOf(turn, valuesOf(wish)));
  if (!first) {
    const [only, ...others] = said;
    const more = others.flatMap((wish) => answerOf(turn, valuesOf(wish)));
    const state = withWaiting(turn.state, unsure.map(valuesOf));
    const acted = actOnIntent({ ...turn, state }, { ...only!, before });
    const own = before.length + answerOf(turn, valuesOf(only!)).length;
    return { ...acted, says: [...acted.says.slice(0, own), ...more, ...acted.says.slice(own)], why };
  }
  const waiting = withWaiting(turn.state, [...rest, ...unsure].map(valuesOf));
  return { ...actOnIntent({ ...turn, state: waiting }, { ...first, before: [...before, ...replies] }), why };
}
