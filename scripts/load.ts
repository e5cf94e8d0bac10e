/** What one kind of request at once by some clients comes to. */
export interface LoadLine {
  what: string;
  clients: number;
  /** Requests answered a second. */
  rate: number;
  /** Milliseconds from request to answer. */
  p50: number;
  p99: number;
}

/** How long each load lasts, in milliseconds. */
const LASTS = 5000;
const CLIENTS = [1, 10, 50];

const quantile = (sorted: readonly number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0;

async function post(url: string, body: unknown): Promise<unknown> {
  const response = await fetch(url, {
    method: 'POST',
    body: JSON.stringify(body),
    headers: { 'content-type': 'application/json' },
  });
  if (!response.ok) throw new Error(await response.text());
  return response.json();
}

/** Has clients do something over and over. @param work is told which client asks and how often it has asked before */
async function loaded(
  what: string,
  clients: number,
  work: (client: number, round: number) => Promise<unknown>,
): Promise<LoadLine> {
  const times: number[] = [];
  const until = performance.now() + LASTS;
  await Promise.all(
    Array.from({ length: clients }, async (_, client) => {
      for (let round = 0; performance.now() < until; round++) {
        const began = performance.now();
        await work(client, round);
        times.push(performance.now() - began);
      }
    }),
  );
  times.sort((a, b) => a - b);
  return { what, clients, rate: (times.length * 1000) / LASTS, p50: quantile(times, 0.5), p99: quantile(times, 0.99) };
}

/**
 * Asks a server with the demo on it for texts and turns, repeated and new, at 1, 10 and 50 clients.
 * @param texts customers' messages to bot 1
 */
export async function loadLines(root: string, texts: readonly string[]): Promise<LoadLine[]> {
  const bot = `${root}/api/bots/1`;
  const lines: LoadLine[] = [];
  const text = (at: number) => texts[at % texts.length]!;
  const repeated = (client: number, round: number) => text(client + (round % 5));
  let fresh = 0;
  // Words that no text has make each message new.
  const unseen = () => `${text(++fresh)} zq${fresh}`;
  for (const clients of CLIENTS) {
    const conversations = await Promise.all(
      Array.from({ length: clients }, async () => ((await post(`${bot}/conversations`, {})) as { id: number }).id),
    );
    const recognise = (words: string) => post(`${bot}/recognise`, { text: words });
    const turn = (client: number, words: string) =>
      post(`${bot}/conversations/${conversations[client]!}/turns`, { type: 'text', text: words });
    lines.push(
      await loaded('repeated texts', clients, (client, round) => recognise(repeated(client, round))),
      await loaded('new texts', clients, () => recognise(unseen())),
      await loaded('turns with repeated texts', clients, (client, round) => turn(client, repeated(client, round))),
      await loaded('turns with new texts', clients, (client) => turn(client, unseen())),
    );
  }
  return lines;
}

/** What a browser is sent for a first page, in bytes: styles and scripts, as they are and compressed. */
export async function firstPage(root: string): Promise<Record<'styles' | 'scripts', { whole: number; sent: number }>> {
  const page = await fetch(`${root}/bots/1/teach`);
  // Files stand in the page, and in the header that has the browser fetch them early.
  const told = `${await page.text()} ${page.headers.get('link') ?? ''}`;
  const files = [...new Set([...told.matchAll(/["<]([^"<>]+\.(?:css|js))[">]/g)].map(([, file]) => file!))];
  const size = async (file: string, encoding: string): Promise<number> => {
    const url = new URL(file, `${root}/bots/1/teach`);
    const response = await fetch(url, { headers: { 'accept-encoding': encoding } });
    const sent = Number(response.headers.get('content-length'));
    const bytes = (await response.arrayBuffer()).byteLength;
    return encoding === 'identity' || sent === 0 ? bytes : sent;
  };
  const sum = async (end: string) => {
    const own = files.filter((file) => file.endsWith(end));
    const [whole, sent] = await Promise.all(
      ['identity', 'br'].map(async (encoding) =>
        (await Promise.all(own.map((file) => size(file, encoding)))).reduce((all, one) => all + one, 0),
      ),
    );
    return { whole: whole!, sent: sent! };
  };
  return { styles: await sum('.css'), scripts: await sum('.js') };
}
