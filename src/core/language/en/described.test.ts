import { describe, expect, it } from 'vitest';
import { asSaid } from './described.js';

describe('a description as the customer would say it', () => {
  it.each([
    ['The customer wants to cancel an order.', 'I want to cancel an order.'],
    ['The customer would like to book a visit', 'I would like to book a visit'],
    ['The customer places a new order for prints.', 'I want to place a new order for prints.'],
    ['A caller asks what something would cost', 'I want to know what something would cost'],
    ['The customer asks for a refund', 'I want a refund'],
    ['the user asks to speak to a person', 'I want to speak to a person'],
    ['The resident has lost something and wants it back', 'I have lost something and wants it back'],
    ['The customer is unhappy with the plants', 'I am unhappy with the plants'],
    ['The visitor tries to reach the nursery', 'I want to reach the nursery'],
    ['The customer applies for a trade account', 'I want to apply for a trade account'],
    ['The customer wishes us a good day', 'I want to wish us a good day'],
    ['The customer complains about the service', 'I want to complain about the service'],
    ['The customer passes on a message', 'I want to pass on a message'],
    ['Opening hours of the shop', 'Opening hours of the shop'],
    ['The customer', 'The customer'],
    ['', ''],
  ])('“%s” is “%s”', (description, wanted) => {
    expect(asSaid(description)).toBe(wanted);
  });
});
