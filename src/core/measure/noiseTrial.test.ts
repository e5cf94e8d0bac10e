import { describe, expect, it } from 'vitest';
import { lineResult as line } from '../../../tests/lineResult.js';
import { languageNamed } from '../language/index.js';
import { NOISES } from '../noise/index.js';
import { noiseTrial, noisyLines } from './noiseTrial.js';

const NOISE = { name: 'n', means: 'Something.' };
describe('a noise trial', () => {
  it('tells how far the lines fall, which intents lose most, and where the bot is sure and wrong', () => {
    const clean = [line('one', 'a', 'a'), line('two', 'a', 'a'), line('three', 'b', 'b'), line('four', 'b', 'a')];
    const noisy = [
      line('onr', 'a', 'b'),
      line('tow', 'a', 'b', { decision: 'ask' }),
      line('thre', 'b', 'b'),
      line('fuor', 'b', 'b'),
    ];
    const trial = noiseTrial(NOISE, clean, noisy, 1);
    expect(trial).toMatchObject({ noise: 'n', before: 0.75, after: 0.5, sureAndWrong: { before: 1, after: 1 } });
    expect(trial.change!.figure).toBeCloseTo(-0.25, 12);
    expect(trial.worst).toEqual([{ intent: 'a', lines: 2, before: 2, after: 0, mended: 0, broken: 2 }]);
    expect(trial.examples).toEqual([
      { text: 'onr', expected: 'a', predicted: 'b' },
      { text: 'tow', expected: 'a', predicted: 'b' },
    ]);
  });

  it('counts no line that was taught, though its noisy form was not', () => {
    const trial = noiseTrial(NOISE, [line('one', 'a', 'a', { taught: true })], [line('onr', 'a', 'b')], 1);
    expect(trial).toMatchObject({ change: null, sureAndWrong: { before: 0, after: 0 }, examples: [] });
  });

  it('changes each line alike, whatever stands before it', () => {
    const settings = { strength: 1, seed: 3, language: languageNamed('en')! };
    const lines = [{ text: 'where has my delivery got to', intent: 'a', slots: [{ slot: 's', start: 0, end: 5 }] }];
    const [noisy] = noisyLines(lines, NOISES[0]!, settings);
    expect(noisy!.text).not.toBe(lines[0]!.text);
    expect(noisy).toEqual({ text: noisy!.text, intent: 'a' });
    expect(noisyLines([...lines, { text: 'more' }], NOISES[0]!, settings)[0]).toEqual(noisy);
  });
});
