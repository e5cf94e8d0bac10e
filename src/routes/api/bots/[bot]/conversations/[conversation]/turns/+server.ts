import { lazy, mixed, object, string } from 'yup';
import { application } from '$server/application.js';
import { answer, NotFoundError, pathNumber, readJson } from '$server/http.js';
import type { PersonSaid } from '$core/contract/try.js';
import type { RequestHandler } from './$types';

/** The sender's own number for the turn. */
const clientId = () => string().strict().max(100, 'At most 100 characters.');

const said = lazy((value: unknown) => {
  const type = (value as { type?: unknown } | null)?.type;
  if (type === 'text')
    return object({
      type: string().required(),
      text: string().strict().required('Write something first.').max(20_000),
      clientId: clientId(),
    }).noUnknown();
  if (type === 'choice')
    return object({
      type: string().required(),
      intent: string().strict().required(),
      clientId: clientId(),
    }).noUnknown();
  if (type === 'noInput' || type === 'handBack') {
    return object({ type: string().required(), clientId: clientId() }).noUnknown();
  }
  return mixed().test('said', 'A turn is a text, a choice, no input or handing back.', () => false);
});

const gone = () => new NotFoundError('There is no such conversation.');

/** Takes a conversation one turn further. */
export const POST: RequestHandler = ({ params, request }) =>
  answer(async () => {
    const { bots, conversations } = await application();
    const bot = await bots.get(pathNumber(params.bot));
    const { clientId: sent = null, ...turn } = await readJson<PersonSaid & { clientId?: string }>(request, said);
    const result = await conversations.say(bot, pathNumber(params.conversation), turn, sent);
    if (!result) throw gone();
    return result;
  });

/** Goes back to before the turn `?from`. */
export const DELETE: RequestHandler = ({ params, url }) =>
  answer(async () => {
    const { bots, conversations } = await application();
    const bot = await bots.get(pathNumber(params.bot));
    const from = Number(url.searchParams.get('from') ?? '0');
    const result = Number.isInteger(from)
      ? await conversations.takeBack(bot, pathNumber(params.conversation), from)
      : null;
    if (!result) throw gone();
    return result;
  });
