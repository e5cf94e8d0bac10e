import type { Finder } from './finder.js';
import { scanWords, wordsOfText } from './words.js';

const HOME: ReadonlyMap<string, string> = new Map([
  ['GB', 'GBP'],
  ['US', 'USD'],
  ['IE', 'EUR'],
  ['DE', 'EUR'],
  ['FR', 'EUR'],
  ['ES', 'EUR'],
  ['IT', 'EUR'],
  ['NL', 'EUR'],
]);

/** The currency of a country. @param region ISO 3166 */
export const homeCurrency = (region: string): string => HOME.get(region) ?? 'GBP';

const hundredths = (amount: number): number => Math.round(amount * 100) / 100;

/** Sums of money in figures and words. */
export const moneyFinder: Finder = {
  kinds: ['money'],
  prepare(_, { region, language }) {
    const home = homeCurrency(region);
    return (text) => {
      const words = wordsOfText(text, language);
      return scanWords(words, (at) => {
        const sum = language.readMoney(words, at, home);
        return sum && { value: { amount: hundredths(sum.amount), currency: sum.currency }, next: sum.next };
      });
    };
  },
};

/** Shares of a hundred, as a number. */
export const percentFinder: Finder = {
  kinds: ['percent'],
  prepare:
    (_, { language }) =>
    (text) => {
      const words = wordsOfText(text, language);
      return scanWords(words, (at) => language.readPercent(words, at));
    },
};
