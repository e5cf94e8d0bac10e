import { emptyForm } from '../core/converse/turn.js';
import { describe, expect, it } from 'vitest';
import { startConversation } from '$core/converse/state.js';
import type { StoredConversation } from '$core/contract/try.js';
import { decisionInWords } from './probe/decision.js';
import { counted, percent, share } from './shared/format.js';
import { STAGES, stagePath } from './shared/stages.js';
import { wholeWords } from './teach/selectedRange.js';
import { actInWords } from './try/actInWords.js';
import { walkthroughOf } from './try/walkthroughOf.js';
import { namedAs } from '../core/text/named.js';

describe('figures', () => {
  it('are shown short, and never rounded up to certain', () => {
    expect([share(0.972), share(0.4), share(0.996), share(1), share(null)]).toEqual([
      '.97',
      '.40',
      '1.00',
      '1.00',
      '–',
    ]);
    expect([percent(0.905), percent(null), percent(undefined)]).toEqual(['91 %', '–', '–']);
    expect([counted(1, 'row'), counted(1200, 'row')]).toEqual(['1 row', '1,200 rows']);
  });
});

describe('selecting words', () => {
  it.each<[string, number, number, string | null]>([
    ['two lavender please', 4, 12, 'lavender'],
    ['two lavender please', 6, 9, 'lavender'],
    ['two lavender please', 3, 13, 'lavender'],
    ['two lavender please', 12, 4, 'lavender'],
    ['two lavender, please', 6, 15, 'lavender, please'],
    ["hart's tongue", 2, 3, "hart's"],
    ['two lavender', 3, 4, null],
    ['for the end of next month.', 10, 17, 'end of next'],
  ])('takes whole words of %j from %i to %i', (text, from, to, wanted) => {
    const range = wholeWords(text, from, to);
    expect(range && text.slice(range.start, range.end)).toBe(wanted);
  });
});

describe('words for what the bot does', () => {
  it('say the decision', () => {
    expect(decisionInWords({ decision: 'accept', intent: 'order', candidates: ['order'] })).toBe('accept order');
    expect(decisionInWords({ decision: 'ask', intent: 'a', candidates: ['a', 'b'] })).toBe('ask: a or b');
    expect(decisionInWords({ decision: 'ask', intent: 'a', candidates: ['a'] })).toBe('ask whether a');
    expect(decisionInWords({ decision: 'none', intent: null, candidates: [] })).toBe('not matched');
  });

  it('say the acts that the slots do not show', () => {
    expect(actInWords({ act: 'handOver', desk: 'counter' })).toBe('hands over to counter');
    expect(actInWords({ act: 'cancel', form: null })).toBe('starts over');
    expect(actInWords({ act: 'setSlot', slot: 'a', value: 1 })).toBeNull();
  });
});

describe('stages', () => {
  it('stand in the order of the job, each with its own key', () => {
    expect(STAGES.map((stage) => stage.key)).toEqual([...STAGES.map((stage) => stage.key)].sort());
    expect(stagePath(3, STAGES[0]!)).toBe('/bots/3/teach');
  });
});

describe('a conversation kept as a walkthrough', () => {
  it('must reach the outcome and the slots it has now', () => {
    const trace = { reader: '', why: '', recognition: null, before: {}, after: {} };
    const turn = (position: number, said: StoredConversation['turns'][number]['said']) => ({
      position,
      said,
      says: [],
      acts: [],
      trace,
      revision: 1,
    });
    const open = { ...emptyForm('order_tea', 'order'), values: namedAs({ amount: 2 }), asked: 'tea' };
    const conversation: StoredConversation = {
      id: 1,
      name: null,
      kept: false,
      startedAt: '',
      state: { ...startConversation('1'), open },
      turns: [
        turn(0, { type: 'choice', intent: 'order_tea' }),
        turn(1, { type: 'text', text: 'two', now: '2026-03-04T09:30' }),
        turn(2, { type: 'noInput' }),
      ],
    };
    expect(walkthroughOf('kept', conversation)).toEqual({
      name: 'kept',
      now: '2026-03-04T09:30',
      turns: [{ user: 'order tea' }, { user: 'two' }, { noInput: true }],
      expect: { outcome: 'abandoned', slots: { amount: 2 } },
    });
  });
});
