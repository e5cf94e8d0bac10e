import { findForm, type BotDocument, type Slot } from '../bot/document.js';
import type { PersonSaid } from '../contract/try.js';
import type { ConversationState, OpenForm, Say } from '../converse/state.js';
import type { Language } from '../language/language.js';
import { oneOf, type Random } from '../noise/noise.js';
import { sameValue, showValue, type Values } from '../recognise/value.js';
import { wantFor, type Goal, type Want } from './goal.js';
import type { Temper } from './tempers.js';
import { entriesOf, heldOf, putHeld } from '../text/named.js';

const put = (template: string, value: string, wrong = ''): string =>
  template.replace('{value}', value).replace('{wrong}', wrong);

/** Slots of the form that hold something else than the customer wants; what its words do not tell is not judged. */
export function wrongSlots(values: Values, { wants }: Goal): string[] {
  return entriesOf(values)
    .filter(([slot, value]) => {
      const wanted = heldOf(wants, slot)?.value;
      return wanted !== undefined && !sameValue(Array.isArray(value) && value.length === 1 ? value[0] : value, wanted);
    })
    .map(([slot]) => slot);
}

/** A customer in a conversation with the bot. It knows what it wants, and sees what any customer sees. */
export class Customer {
  readonly #document: BotDocument;
  readonly #language: Language;
  readonly #temper: Temper;
  readonly #random: Random;
  readonly goal: Goal;
  #opened = false;
  #changed: boolean;
  #refused: boolean;
  /** The slot that was asked for last, and whether it is asked for again. */
  #asked: string | null = null;
  /** Ways to say it that have not been tried. */
  readonly #otherwise: string[];

  constructor(
    goal: Goal,
    temper: Temper,
    { document, language, random }: { document: BotDocument; language: Language; random: Random },
  ) {
    this.goal = goal;
    this.#document = document;
    this.#language = language;
    this.#temper = temper;
    this.#random = random;
    this.#changed = temper.changes === 0 || random() >= temper.changes;
    // A form that a no leaves is not refused: the customer would lose it.
    this.#refused = temper.contradicts === 0 || findForm(document, goal.form)?.onNo === 'leave';
    this.#otherwise = [...goal.otherwise];
  }

  /** What it does next; `null` where it gives up. */
  next(state: ConversationState, says: readonly Say[]): PersonSaid | null {
    if (this.#opened && this.#random() < this.#temper.silent) return { type: 'noInput' };
    const text = this.#opened ? this.#answer(state, says) : this.#within(this.goal.opening);
    this.#opened = true;
    return text === null ? null : { type: 'text', text };
  }

  #one(texts: readonly string[]): string {
    return oneOf(texts, this.#random);
  }

  /** Something said within other talk, by one who talks. */
  #within(text: string): string {
    if (this.#random() >= this.#temper.talk) return text;
    const { before, after } = this.#language.noise;
    return this.#random() < 0.5 ? `${this.#one(before)} ${text}` : `${text}. ${this.#one(after)}`;
  }

  #answer(state: ConversationState, says: readonly Say[]): string | null {
    const { customers } = this.#language;
    const choices = says.flatMap((say) => say.choices ?? []);
    if (choices.length > 0) {
      const own = choices.find(({ intent }) => intent === this.goal.intent);
      return own ? own.label : this.#one(customers.none);
    }
    if (state.open?.form === this.goal.form) return this.#inForm(state.open);
    if (state.open) return this.#one(customers.otherwise);
    return this.#otherwise.shift() ?? null;
  }

  #inForm(open: OpenForm): string {
    const { customers } = this.#language;
    const { manner } = this.#temper;
    if (open.between) {
      const wanted = open.between.values.find((value) =>
        sameValue(value, heldOf(this.goal.wants, open.between!.slot)?.value),
      );
      return showValue(wanted ?? open.between.values[0]!);
    }
    if (open.fits) return open.fits.options[0]!.slot.replace(/_/g, ' ');
    const change = this.#change(open);
    if (change !== null) return change;
    if (open.stage === 'filling') return this.#valueOf(open);
    const [wrong] = wrongSlots(open.values, this.goal);
    if (wrong !== undefined)
      return put(
        this.#one(customers.corrections),
        heldOf(this.goal.wants, wrong)!.said,
        showValue(heldOf(open.values, wrong)!),
      );
    if (open.stage === 'changing') return this.#one(customers.fine);
    if (!this.#refused) {
      this.#refused = true;
      return this.#one(customers.no);
    }
    return this.#one(customers.yes[manner]);
  }

  #valueOf({ asked }: OpenForm): string {
    const { customers } = this.#language;
    const again = asked === this.#asked;
    this.#asked = asked;
    // What the bot will not have is given up for something else.
    if (asked !== null && again && heldOf(this.goal.wants, asked)?.value === undefined) this.#wantAnew(asked);
    const want = asked === null ? undefined : heldOf(this.goal.wants, asked);
    if (!want) return this.#one(customers.yes.plain);
    if (this.#random() < this.#temper.contradicts) {
      const other = this.#otherThan(asked!, want);
      if (other) return put(this.#one(customers.contradictions), want.said, other.said);
    }
    return this.#within(put(this.#one(customers.answers[this.#temper.manner]), want.said));
  }

  /** Changes its mind, once, about something that the bot has taken up. */
  #change(open: OpenForm): string | null {
    if (this.#changed) return null;
    const right = Object.keys(open.values).filter((slot) => heldOf(this.goal.wants, slot)?.value !== undefined);
    const slot = right.find((name) => !wrongSlots(open.values, this.goal).includes(name));
    // Before all is read back it does so every other time.
    if (slot === undefined || (open.stage === 'filling' && this.#random() < 0.5)) return null;
    const before = heldOf(this.goal.wants, slot)!;
    const after = this.#otherThan(slot, before);
    this.#changed = true;
    if (!after) return null;
    putHeld(this.goal.wants, slot, after);
    return put(this.#one(this.#language.customers.changes), after.said, before.said);
  }

  #slot(name: string): Slot | undefined {
    return findForm(this.#document, this.goal.form)?.slots.find((candidate) => candidate.name === name);
  }

  #wantAnew(name: string): void {
    const slot = this.#slot(name);
    if (slot) putHeld(this.goal.wants, name, wantFor(this.#document, slot, this.#random, this.#language));
  }

  /** Another value that a slot may have; `null` where its values do not tell. */
  #otherThan(name: string, want: Want): Want | null {
    const slot = this.#slot(name);
    if (!slot) return null;
    const tries = 8;
    for (let at = 0; at < tries; at++) {
      const other = wantFor(this.#document, slot, this.#random, this.#language);
      if (other.value !== undefined && !sameValue(other.value, want.value)) return other;
    }
    return null;
  }
}
