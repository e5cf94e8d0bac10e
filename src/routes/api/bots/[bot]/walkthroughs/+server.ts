import { readWalkthroughs } from '$core/converse/walkthrough.js';
import { application } from '$server/application.js';
import { answer, InputError, pathNumber, readText } from '$server/http.js';
import type { RequestHandler } from './$types';

function parse(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new InputError(
      `The file is not JSON (${error instanceof Error ? error.message : 'unreadable'}). Nothing was changed.`,
    );
  }
}

/** Adds walkthroughs from a walkthrough file. One with faults changes nothing. */
export const POST: RequestHandler = ({ params, request }) =>
  answer(async () => {
    const { bots } = await application();
    const bot = await bots.get(pathNumber(params.bot));
    const result = readWalkthroughs(parse(await readText(request)));
    if (!result.ok) throw new InputError('The walkthroughs were not brought in. Nothing was changed.', result.faults);
    await bots.addWalkthroughs(bot.id, result.walkthroughs);
  });
