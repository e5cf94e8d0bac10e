import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { encodeTexts, type Encoder } from '../src/core/encode/encoder.js';
import { finalOutcome, heldValues, startConversation, type Outcome, type Step } from '../src/core/converse/state.js';
import { step } from '../src/core/converse/step.js';
import { textsOfTurn } from '../src/core/converse/turn.js';
import { readBotFile } from '../src/core/formats/botFile.js';
import { openRecogniser, type Recogniser } from '../src/core/recognise/open.js';
import { prepareTraining } from '../src/core/recognise/train.js';
import type { SlotValue } from '../src/core/recognise/value.js';
import { encoderFolder } from '../src/server/encoder/files.js';
import { loadEncoder } from '../src/server/encoder/load.js';
import { heldOf } from '../src/core/text/named.js';

const NOW = '2026-03-04T09:30';

/** What a customer says, and what the bot must say to it. */
type Line = string | [string, RegExp];

/** A conversation, and what it comes to. */
export interface Manner {
  name: string;
  lines: Line[];
  outcome?: Outcome;
  slots?: Record<string, SlotValue | undefined>;
}

/**
 * Leads conversations with a bot, read with the real encoder, a test each.
 * @param bot its folder beside this file
 * @param manners by kind
 */
export function testManners(bot: string, manners: Record<string, Manner[]>): void {
  describe(`the manners of a bot: ${bot}`, () => {
    let encoder: Encoder;
    let recogniser: Recogniser;

    beforeAll(async () => {
      const result = readBotFile(readFileSync(new URL(`./${bot}/bot.yaml`, import.meta.url), 'utf8'));
      if (!result.ok) throw new Error(JSON.stringify(result.faults));
      encoder = await loadEncoder(encoderFolder());
      const taught = await encodeTexts(encoder, prepareTraining(result.document).texts);
      recogniser = openRecogniser(result.document, prepareTraining(result.document).train(taught));
    });

    const cases = Object.entries(manners).flatMap(([kind, own]) => own.map((manner) => ({ kind, ...manner })));

    it.each(cases)('$kind: $name', async ({ lines, outcome, slots }) => {
      let state = startConversation('40001');
      for (const line of lines) {
        const [text, wanted] = typeof line === 'string' ? [line, null] : line;
        const vectors = await encodeTexts(encoder, textsOfTurn(recogniser, text));
        const result: Step = step(recogniser, state, { type: 'text', text, vectors, now: NOW });
        const said = result.says.map((one) => one.text).join(' ');
        if (wanted) expect(said, `to “${text}” (${result.trace.reader}: ${result.trace.why})`).toMatch(wanted);
        state = result.state;
      }
      if (outcome) expect(finalOutcome(state)).toBe(outcome);
      for (const [slot, value] of Object.entries(slots ?? {}))
        expect(heldOf(heldValues(state), slot), slot).toEqual(value);
    });
  });
}
