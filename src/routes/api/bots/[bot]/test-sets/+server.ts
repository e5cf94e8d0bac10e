import { readTestFile } from '$core/formats/testFile.js';
import { application } from '$server/application.js';
import { answer, InputError, pathNumber, readText } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Brings in a test file (JSONL, CSV or TSV) under the name `?name`. A file with faults changes nothing. */
export const POST: RequestHandler = ({ params, request, url }) =>
  answer(async () => {
    const { bots } = await application();
    const bot = await bots.get(pathNumber(params.bot));
    const result = readTestFile(await readText(request));
    if (!result.ok) {
      const { length } = result.faults;
      throw new InputError(
        `The file was not brought in: it has ${length} ${length === 1 ? 'fault' : 'faults'}. Nothing was changed.`,
        result.faults,
      );
    }
    const name = url.searchParams.get('name')?.trim().slice(0, 200) || 'Test set';
    return { id: await bots.addTestSet(bot.id, name, result.lines) };
  });
