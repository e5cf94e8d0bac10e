import { readBotFile } from '$core/formats/botFile.js';
import { application } from '$server/application.js';
import { answer, InputError, readText } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Makes a bot from a file, JSON or YAML. A file with faults changes nothing. */
export const POST: RequestHandler = ({ request }) =>
  answer(async () => {
    const { bots } = await application();
    const result = readBotFile(await readText(request));
    if (!result.ok) {
      const { length } = result.faults;
      throw new InputError(
        `The file was not brought in: it has ${length} ${length === 1 ? 'fault' : 'faults'}. Nothing was changed.`,
        result.faults,
      );
    }
    return { id: await bots.create(result.document) };
  });
