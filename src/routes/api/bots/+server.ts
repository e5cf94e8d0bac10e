import { object, string } from 'yup';
import { emptyBot } from '$core/bot/document.js';
import { application } from '$server/application.js';
import { answer, InputError, readJson } from '$server/http.js';
import type { RequestHandler } from './$types';

const newBot = object({ name: string().trim().required('Give the bot a name.').max(120) });

/** Makes an empty bot. */
export const POST: RequestHandler = ({ request }) =>
  answer(async () => {
    const { bots } = await application();
    const { name } = await readJson<{ name: string }>(request, newBot);
    if ((await bots.list()).some((bot) => bot.name === name)) throw new InputError(`There is another bot "${name}".`);
    return { id: await bots.create(emptyBot(name)) };
  });
