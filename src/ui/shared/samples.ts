import type { BotAct } from '$core/bot/acts/index.js';

/** A beginning that every trade has, for those who would rather change something than face an empty page. */
export interface Sample {
  /** What the button says. */
  words: string;
  acts: BotAct[];
}

export const SAMPLES = {
  intent: {
    words: 'Begin with a sample: thanks and goodbye',
    acts: [
      { do: 'addIntent', name: 'thanks_goodbye', description: 'The customer says thank you or goodbye' },
      {
        do: 'addUtterances',
        intent: 'thanks_goodbye',
        utterances: [
          'thank you so much',
          'cheers thats everything',
          "great, that's all I needed",
          'bye for now',
          'no thats it, ta',
          'lovely, thanks for your help',
          'ok perfect thx',
          'have a nice day',
        ],
      },
      { do: 'changeIntent', name: 'thanks_goodbye', to: { reply: 'You are welcome. Goodbye.' } },
    ],
  },
  entity: {
    words: 'Begin with a sample: sizes',
    acts: [
      { do: 'addEntity', name: 'size', kind: 'list', misspellings: true },
      {
        do: 'addValues',
        entity: 'size',
        values: [
          { value: 'small', synonyms: ['little', 'smallest', 'mini'] },
          { value: 'medium', synonyms: ['middle', 'regular', 'standard'] },
          { value: 'large', synonyms: ['big', 'largest', 'biggest'] },
        ],
      },
    ],
  },
  form: {
    words: 'Begin with a sample: a call back',
    acts: [
      { do: 'addForm', name: 'call_back' },
      {
        do: 'addSlot',
        form: 'call_back',
        name: 'name',
        entity: 'person',
        required: true,
        prompts: ['What is your name, please?'],
      },
      {
        do: 'addSlot',
        form: 'call_back',
        name: 'number',
        entity: 'phone',
        required: true,
        prompts: ['On which number can we reach you?', 'Which telephone number is that, with all its digits?'],
      },
      {
        do: 'changeForm',
        name: 'call_back',
        to: {
          confirm: 'We will call {name} on {number}. Is that right?',
          done: 'Thank you, somebody will ring you soon.',
        },
      },
    ],
  },
} satisfies Record<string, Sample>;
