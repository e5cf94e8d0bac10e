import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { encoderText } from './encoderText.js';

describe('a text as the encoder reads it', () => {
  it.each([
    ['Can you help', 'Can you help'],
    ['Can you help?', 'Can you help?'],
    ['Can you help??!', 'Can you help?'],
    ['Where is it!!!', 'Where is it'],
    ['“I’d like two”', "I'd like two"],
    ['"I`d like two"', "I'd like two"],
    ['thank you 🙂👍🏽', 'thank you'],
    ['two   trays\n of\tthyme', 'two trays of thyme'],
    ['WHERE IS MY ORDER?', 'where is my order?'],
    ['I am REALLY cross', 'I am really cross'],
    ['A3 on DL please', 'A3 on DL please'],
    ['cancel LM-63012 or 9940017', 'cancel it or it'],
    ['take 250 of them', 'take 250 of them'],
    ['...', ''],
    ['🌱', ''],
    ['', ''],
  ])('“%s” is “%s”', (text, wanted) => {
    expect(encoderText(text)).toBe(wanted);
  });

  it('is brought to that form once and for all', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 60 }), (text) => {
        const once = encoderText(text);
        expect(encoderText(once)).toBe(once);
      }),
    );
  });
});
