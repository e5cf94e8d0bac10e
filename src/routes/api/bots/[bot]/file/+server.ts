import { writeBotFile, type BotFileFormat } from '$core/formats/botFile.js';
import { application } from '$server/application.js';
import { loading, pathNumber } from '$server/http.js';
import type { RequestHandler } from './$types';

/** Gives a bot as a file: `?format=yaml` (the default) or `json`. */
export const GET: RequestHandler = ({ params, url }) =>
  loading(async () => {
    const { bots } = await application();
    const { document } = await bots.get(pathNumber(params.bot));
    const format: BotFileFormat = url.searchParams.get('format') === 'json' ? 'json' : 'yaml';
    const name =
      document.name
        .replace(/[^\p{L}\p{N}]+/gu, '-')
        .replace(/^-|-$/g, '')
        .toLowerCase() || 'bot';
    return new Response(writeBotFile(document, format), {
      headers: {
        'content-type': format === 'json' ? 'application/json' : 'application/yaml; charset=utf-8',
        'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}.${format}`,
      },
    });
  });
