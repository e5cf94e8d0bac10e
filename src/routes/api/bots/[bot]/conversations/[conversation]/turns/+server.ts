import { lazy, mixed, object, string } from 'yup';
import { application } from '$server/application.js';
import { answer, NotFoundError, pathNumber, readJson } from '$server/http.js';
import type { PersonSaid } from '$core/contract/try.js';
import type { RequestHandler } from './$types';

const said = lazy((value: unknown) => {
  const type = (value as { type?: unknown } | null)?.type;
  if (type === 'text')
    return object({
      type: string().required(),
      text: string().strict().required('Write something first.').max(20_000),
    }).noUnknown();
  if (type === 'choice') return object({ type: string().required(), intent: string().strict().required() }).noUnknown();
  if (type === 'noInput') return object({ type: string().required() }).noUnknown();
  return mixed().test('said', 'A turn is a text, a choice or no input.', () => false);
});

const gone = () => new NotFoundError('There is no such conversation.');

/** Takes a conversation one turn further. */
export const POST: RequestHandler = ({ params, request }) =>
  answer(async () => {
    const { bots, conversations } = await application();
    const bot = await bots.get(pathNumber(params.bot));
    const turn = await readJson<PersonSaid>(request, said);
    const result = await conversations.say(bot, pathNumber(params.conversation), turn);
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
