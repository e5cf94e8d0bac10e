import { findForm, formOfIntent, kindOf, type EntityKind } from '../../bot/document.js';
import type { SlotValue, Values } from '../../recognise/value.js';
import { actOnIntent } from '../act.js';
import { goOn, sayOwn, type Reader, type Turn } from '../turn.js';
import { heldBy, heldOf } from '../../text/named.js';

/** Kinds of value that name one thing or person, so that "it" in a second wish means the one of the first. */
const NAMES_ONE: readonly (EntityKind | undefined)[] = ['pattern', 'email', 'phone', 'person', 'address'];

/** What the form completed before gives to the next: the same order, the same person. The read-back names it. */
function sharedWithLast({ document, state }: Turn, intent: string): Values {
  const form = formOfIntent(document, intent);
  const before = findForm(document, state.last?.form);
  if (!form?.confirm || !before || !state.last) return {};
  const { values } = state.last;
  const shared = form.slots.flatMap((slot): [string, SlotValue][] => {
    const same = before.slots.find((other) => other.entity === slot.entity && heldOf(values, other.name) !== undefined);
    return same && NAMES_ONE.includes(kindOf(document, slot)) ? [[slot.name, heldOf(values, same.name)!]] : [];
  });
  return heldBy(shared);
}

/** The answer to "you also wanted to …": yes does it, no lets it be; anything else is read as it stands. */
export const offerReader: Reader = {
  name: 'offer',
  read(turn) {
    const { offered } = turn.state;
    if (offered === null) return null;
    const { hearing } = turn;
    const state = { ...turn.state, offered: null };
    if (hearing.says('yes', 'ok') && !hearing.says('no') && !hearing.content.some(({ question }) => question)) {
      const held = { ...sharedWithLast(turn, offered.intent), ...offered.values };
      const next = actOnIntent({ ...turn, state }, { intent: offered.intent, held, within: hearing.content });
      return { ...next, why: `the customer goes on with ${offered.intent}` };
    }
    if (hearing.onlySteers && hearing.says('no', 'keep', 'nothing', 'neither')) {
      return { ...goOn(turn, state, sayOwn(turn, 'left'), []), why: `the customer does not want ${offered.intent}` };
    }
    return null;
  },
};
