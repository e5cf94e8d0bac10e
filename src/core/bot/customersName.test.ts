import { describe, expect, it } from 'vitest';
import { teaShop } from '../../../tests/teaShop.js';
import { LANGUAGES } from '../language/index.js';
import { customersName, isOffered, proposedName } from './customersName.js';

describe('how an intent is named to customers', () => {
  it.each([
    ['change_order', 'change an order'],
    ['order_plants', 'order plants'],
    ['cancel_bulky_collection', 'cancel a bulky collection'],
    ['order_status', 'order status'],
    ['find_us', 'find us'],
    ['speak_to_person', 'speak to a person'],
    ['bookRepair', 'book a repair'],
    ['opening_hours', 'opening hours'],
  ])('is proposed from its name: %s', (name, proposed) => {
    expect(proposedName(name, LANGUAGES.en)).toBe(proposed);
  });

  it('is what the bot says, apart from the description', () => {
    const shop = teaShop((draft) => {
      (draft['intents'] as Record<string, unknown>[])[1]!['called'] = { en: 'ask when we are open', es: 'horarios' };
    });
    expect(customersName(shop, 'opening_hours', 'en')).toBe('ask when we are open');
    expect(customersName(shop, 'opening_hours', 'es')).toBe('horarios');
    expect(customersName(shop, 'cancel_order', 'en')).toBe('cancel an order');
  });

  it('is offered for all but thanks, greetings and the like, unless the bot says otherwise', () => {
    for (const name of ['thanks_goodbye', 'greeting', 'hello', 'goodbye', 'small_talk'])
      expect(isOffered({ name }, LANGUAGES.en), name).toBe(false);
    for (const name of ['order_tea', 'hide_account', 'byelaws', 'greenhouse'])
      expect(isOffered({ name }, LANGUAGES.en), name).toBe(true);
    expect(isOffered({ name: 'greeting', offered: true }, LANGUAGES.en)).toBe(true);
    expect(isOffered({ name: 'order_tea', offered: false }, LANGUAGES.en)).toBe(false);
  });
});
