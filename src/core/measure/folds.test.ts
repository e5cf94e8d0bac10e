import { describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import type { BotDocument } from '../bot/document.js';
import { foldMessage, taughtMessages } from './evaluate.js';
import { foldsOf, withShare } from './folds.js';

const textsOf = ({ intents }: BotDocument): string[] =>
  intents.flatMap(({ utterances }) => utterances.map(({ text }) => text));

describe('folds', () => {
  const document = teaShop();

  it('hold each utterance out once, and teach it in all others', () => {
    const folds = foldsOf(document, 4, 1);
    expect(folds.flatMap(({ lines }) => lines.map(({ text }) => text)).sort()).toEqual(textsOf(document).sort());
    for (const { document: part, lines } of folds) {
      const taught = textsOf(part);
      expect(taught.length + lines.length).toBe(textsOf(document).length);
      for (const { text } of lines) expect(taught).not.toContain(text);
    }
  });

  it('have as much of each intent as can be, and begin at different places', () => {
    const folds = foldsOf(document, 4, 1);
    for (const { name, utterances } of document.intents) {
      const counts = folds.map(({ lines }) => lines.filter(({ intent }) => intent === name).length);
      expect(Math.max(...counts) - Math.min(...counts)).toBeLessThanOrEqual(1);
      expect(counts.reduce((sum, count) => sum + count, 0)).toBe(utterances.length);
    }
  });

  it('follow from the seed', () => {
    const lines = (seed: number) => foldsOf(document, 4, seed).map((fold) => fold.lines.map(({ text }) => text));
    expect(lines(1)).toEqual(lines(1));
    expect(lines(1)).not.toEqual(lines(2));
  });

  it('flag a line of which another like it is taught, however it is written', () => {
    const doubled = teaShop((draft) => {
      (draft['intents'] as { utterances: string[] }[])[0]!.utterances.push('ORDER  some tea!');
    });
    const flagged = foldsOf(doubled, 10, 3).flatMap(({ document: part, lines }) =>
      lines.filter(({ text }) => taughtMessages(part).has(foldMessage(text))).map(({ text }) => text),
    );
    expect(flagged.sort()).toEqual(['ORDER  some tea!', 'order some tea']);
  });
});

describe('a share of the utterances', () => {
  it('is part of every greater one, and one of each intent at least', () => {
    const document = teaShop();
    const few = textsOf(withShare(document, 0.01, 5));
    const half = textsOf(withShare(document, 0.5, 5));
    expect(few).toHaveLength(document.intents.filter(({ utterances }) => utterances.length > 0).length);
    for (const text of few) expect(half).toContain(text);
    expect(textsOf(withShare(document, 1, 5))).toEqual(textsOf(document));
  });
});
