import { object, string } from 'yup';
import { application } from '$server/application.js';
import { answer, pathNumber, readJson } from '$server/http.js';
import type { RequestHandler } from './$types';

const direction = object({ direction: string().strict().oneOf(['undo', 'redo']).required() });

/** Undoes the last act, or does again the last one undone. */
export const POST: RequestHandler = ({ params, request }) =>
  answer(async () => {
    const { bots } = await application();
    const body = await readJson<{ direction: 'undo' | 'redo' }>(request, direction);
    const result = await bots.step(pathNumber(params.bot), body.direction);
    return { label: result?.label ?? null };
  });
