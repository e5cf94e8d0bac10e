import { MOST } from '../core/bot/limits.js';
import { flag, name, parts, text } from '../core/shape/shapes.js';
import { lazy, mixed, string, type ISchema } from '../core/shape/yup.js';
import type { PersonSaid } from '../core/contract/try.js';

/** The longest message that is taken, in UTF-16 code units. */
const LONGEST_MESSAGE = 20_000;

const message = () =>
  string()
    .strict()
    .typeError('must be a text')
    .max(LONGEST_MESSAGE, 'A message of more than 20,000 characters is not read.');

/** A request that brings one message to be read. */
export const messageBody = parts({ text: message().defined() });

export const newBotBody = parts({ name: text(MOST.name).required('Give the bot a name.') });

export const historyBody = parts({
  direction: string()
    .strict()
    .oneOf(['undo', 'redo'] as const)
    .required(),
  overOthers: flag(),
});

export const testLineBody = parts({
  text: message().required('Write the message first.'),
  intent: name().nullable(),
});

export const conversationBody = parts({ name: text(MOST.name).nullable(), kept: flag() });

/** The sender's own number for the turn. */
const clientId = text(MOST.name);
const type = string().strict().required();

const SAID = {
  text: parts({ type, text: message().required('Write something first.'), clientId }),
  choice: parts({ type, intent: name(), clientId }),
  noInput: parts({ type, clientId }),
  handBack: parts({ type, clientId }),
};

/** What a person does in Try. */
export const turnBody = lazy((value: unknown) => {
  const kind = (value as { type?: unknown } | null)?.type;
  if (typeof kind === 'string' && Object.hasOwn(SAID, kind)) return SAID[kind as keyof typeof SAID];
  return mixed().test('said', 'A turn is a text, a choice, no input or handing back.', () => false);
}) as unknown as ISchema<PersonSaid & { clientId?: string }>;
