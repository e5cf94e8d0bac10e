import type { BotFileFormat } from '$core/formats/botFile.js';
import { loading, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Gives a bot as a file: `?format=yaml` (the default) or `json`. */
export const GET: RequestHandler = (event) =>
  loading(event, 'bot:read', async ({ bots }) => {
    const format: BotFileFormat = event.url.searchParams.get('format') === 'json' ? 'json' : 'yaml';
    const { name, text } = await bots.file(pathNumber(event.params.bot), format);
    const plain =
      name
        .replace(/[^\p{L}\p{N}]+/gu, '-')
        .replace(/^-|-$/g, '')
        .toLowerCase() || 'bot';
    return new Response(text, {
      headers: {
        'content-type': format === 'json' ? 'application/json' : 'application/yaml; charset=utf-8',
        'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(plain)}.${format}`,
      },
    });
  });
