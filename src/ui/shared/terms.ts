/** Terms that screens explain at their place, a sentence each. */
export const TERMS = {
  heldOut:
    'Each utterance is read by a model that was not taught it, nor one of the same words. Utterances are written to differ, so this lies below what customers’ messages get: compare it with itself, and ask Prove how good the bot is.',
  firstThree: 'The share of the lines whose right intent is among the first three.',
  curve:
    'How well confidence tells what is in scope from what is out of it: the chance that a message in scope has the higher one; 0.5 is no better than a coin, 1 is perfect.',
  calibration:
    'How far confidences lie from the share that is read right, on average, for messages in scope: at 0 a confidence of .80 is right 80 times in 100.',
  logOdds:
    'The logarithm of how often an intent is right to how often it is wrong: +1 makes it some 2.7 times likelier, −1 as much less likely.',
  change: 'How many acts brought the bot to where it stood then; each act counts one.',
  model: 'The model that read it, named by the change of the bot that it was taught with.',
} as const;
