import type { Edit } from '$core/bot/edit.js';
import { editSchema } from '$core/bot/editSchema.js';
import { application } from '$server/application.js';
import { answer, pathNumber, readJson } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Does one act upon a bot. */
export const POST: RequestHandler = ({ params, request }) =>
  answer(async () => {
    const { bots } = await application();
    const edit = await readJson<Edit>(request, editSchema);
    const { revision } = await bots.edit(pathNumber(params.bot), edit);
    return { revision };
  });
