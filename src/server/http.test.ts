import { describe, expect, it } from 'vitest';
import type { RequestEvent } from '@sveltejs/kit';
import { ActError } from '../core/bot/acts/index.js';
import fc from 'fast-check';
import * as bodies from './bodies.js';
import { historyBody, messageBody, turnBody } from './bodies.js';
import { ownHosts, refusedAtDoor } from './doors.js';
import { InputError, NotFoundError } from './errors.js';
import { answer, faultsShown, pathNumber, readJson, readText } from './http.js';
import { isLarge, rowsOf, shaped, valueOf, type LargeBody } from './requests.js';
import { localNow } from './time.js';

const request = (body: BodyInit) => new Request('http://localhost/', { method: 'POST', body });

describe('requests', () => {
  it.each([undefined, '', '0', '-1', '1.5', '1e3', 'x', '9'.repeat(20), '1;drop table bot'])(
    'take %j for no number',
    (part) => {
      expect(() => pathNumber(part)).toThrow(NotFoundError);
    },
  );

  it('read uploads as text up to their limit', async () => {
    expect(await readText(request('grün 🌱'))).toBe('grün 🌱');
    await expect(readText(request('x'.repeat(3_000_000)), 1024 * 1024)).rejects.toThrow(/larger than 1 MB/);
  });

  it('stop reading a stream that says nothing of its length once it is too long', async () => {
    let sent = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull(controller) {
        sent += 1024;
        controller.enqueue(new Uint8Array(1024).fill(97));
      },
    });
    const body = { method: 'POST', body: endless, duplex: 'half' } as RequestInit;
    await expect(readText(new Request('http://localhost/', body), 10_000)).rejects.toThrow(InputError);
    expect(sent).toBeLessThan(40_000);
  });

  it('refuse what is no text', async () => {
    await expect(readText(request(new Uint8Array([0xff, 0xfe, 0x00])))).rejects.toThrow(/not text in UTF-8/);
  });

  it.each<[string, string, RegExp]>([
    ['an empty body', '  ', /is empty/],
    ['what is no JSON', '{', /cannot be read as JSON/],
    ['lists in lists without end', `${'['.repeat(10_000)}${']'.repeat(10_000)}`, /nested more than 100 deep/],
    ['the name of every object', '{"text":"a","__proto__":{"x":1}}', /“__proto__”, which cannot be used/],
    ['that name in disguise, deep down', '{"text":"a","b":[{"c":{"\\u0063onstructor":1}}]}', /“constructor”/],
    ['an object for a text', '{"text":{"trim":1}}', /text must be a text/],
    ['a list for a text', '{"text":[]}', /text must be a text/],
    ['a number for a text', '{"text":7}', /text must be a text/],
    ['no text', '{}', /text is missing/],
    ['a part too many', '{"text":"a","admin":true}', /admin is not known here/],
    ['a message without end', JSON.stringify({ text: 'a'.repeat(20_001) }), /more than 20,000 characters/],
    ['nothing', 'null', /not as it must be/],
    ['a list', '[]', /must be an object/],
  ])('refuse %s in a sentence', async (_, body, message) => {
    const error: unknown = await readJson(request(body), messageBody).catch((reason: unknown) => reason);
    expect(error).toBeInstanceOf(InputError);
    expect((error as Error).message).toMatch(message);
    expect((error as Error).message).not.toMatch(/yup|schema|`|TypeError|undefined/);
    expect((error as Error).message.length).toBeLessThan(500);
  });

  const { LARGE_BODIES, ...others } = bodies;
  const SHAPES = Object.entries({ ...others, ...LARGE_BODIES });
  const keys = ['text', 'intent', 'slots', 'lines', 'ids', 'change', 'start', 'end', 'slot', 'value', 'style', 'tags'];
  const anything = fc.letrec((tie) => ({
    value: fc.oneof(
      { maxDepth: 4 },
      fc.constantFrom(null, '', 'abc', 0, -1, 1.5, true, 1e308),
      fc.array(tie('value'), { maxLength: 4 }),
      fc.dictionary(fc.constantFrom(...keys, 'type', 'name', 'toString', 'seed'), tie('value'), { maxKeys: 5 }),
    ),
  })).value;

  it.each(SHAPES)('take or refuse whatever is sent, and never fail: %s', (_, shape) => {
    fc.assert(
      fc.property(anything, (value) => {
        try {
          shaped(shape, value);
        } catch (error) {
          expect(error).toBeInstanceOf(InputError);
        }
      }),
      { numRuns: 300 },
    );
  });

  it.each<[keyof LargeBody, unknown, RegExp]>([
    ['testLines', { lines: Array(5001).fill(1) }, /lines At most 5,000 lines are added at once/],
    ['testLines', { lines: [{ text: 'abc', slots: Array(50_000).fill({}) }] }, /slots has more than 200 items/],
    ['testLines', { lines: [{ text: 'abc', slots: null }] }, /slots must not be null/],
    ['testLines', { lines: [{ text: 'abc', slots: [{ slot: 'a', start: 2, end: 9 }] }] }, /do not lie within its text/],
    ['testLineChange', { ids: [1], change: { slots: Array(100_000).fill(1) } }, /more than 100,000 values/],
    ['testLineChange', { ids: [1], change: { slots: Array(50_000).fill(1) } }, /slots has more than 200 items/],
    ['testLineChange', {}, /ids is missing/],
    ['testLineIds', { ids: Array(50_000).fill('a') }, /ids has more than 5,000 items/],
  ])('count the rows of %s before they are looked at', (name, body, message) => {
    expect(() => rowsOf(name, JSON.stringify(body))).toThrow(message);
  });

  it('know a body that holds much, whatever stands in its texts', async () => {
    expect(isLarge(JSON.stringify({ text: 'a, "b", c, '.repeat(1800) }))).toBe(false);
    expect(isLarge(JSON.stringify({ ids: Array(1001).fill(1) }))).toBe(true);
    expect(isLarge(JSON.stringify({ text: 'a'.repeat(200_000) }))).toBe(true);
    const many = JSON.stringify({ text: Array(5000).fill(1) });
    await expect(readJson(request(many), messageBody)).rejects.toThrow(/more than anything that can be asked/);
  });

  it('take what is as it must be', async () => {
    expect(await readJson(request('{"text":"[[[[ \\"{{{"}'), messageBody)).toEqual({ text: '[[[[ "{{{' });
    expect(await readJson(request('{"direction":"undo"}'), historyBody)).toEqual({ direction: 'undo' });
    expect(await readJson(request('{"type":"noInput"}'), turnBody)).toEqual({ type: 'noInput' });
    await expect(readJson(request('{"type":"magic"}'), turnBody)).rejects.toThrow(/A turn is a text, a choice/);
    await expect(readJson(request('{"type":"text","intent":"a"}'), turnBody)).rejects.toThrow(
      /text Write something first/,
    );
    expect(valueOf('[1]')).toEqual([1]);
  });

  it('tell the first hundred faults, each of at most a line or two', () => {
    const faults = Array.from({ length: 200 }, () => ({ path: 'a', message: 'b'.repeat(100_000) }));
    const shown = faultsShown(faults);
    expect(shown).toHaveLength(100);
    expect(JSON.stringify(shown).length).toBeLessThan(50_000);
  });
});

describe('the doors', () => {
  const at = (url: string, init: RequestInit & { host?: string } = {}) => {
    const { host, ...rest } = init;
    const headers = { host: host ?? new URL(url).host, ...(rest.headers as Record<string, string> | undefined) };
    return { url: new URL(url), request: { method: rest.method ?? 'GET', headers: new Headers(headers) } as Request };
  };
  const own = ownHosts({
    HOST: '0.0.0.0',
    ORIGIN: 'https://bots.example.org',
    REED_GATE_HOSTS: 'reed.local, 10.0.0.4',
  });

  it.each([
    'localhost:4173',
    '127.0.0.1:4173',
    '[::1]:4173',
    'LOCALHOST',
    'bots.example.org',
    'reed.local:80',
    '10.0.0.4',
  ])('are open under %s', (host) => {
    expect(refusedAtDoor(at('http://localhost/bots', { host }), own)).toBeNull();
  });

  it.each(['evil.example', 'evil.example:4173', 'localhost.evil.example', '0.0.0.0', '', 'a b', 'localhost:4173/x'])(
    'are shut under %j, for reading too',
    (host) => {
      for (const method of ['GET', 'POST', 'DELETE'])
        expect(refusedAtDoor(at('http://localhost/api/bots', { host, method }), own)).toMatch(
          /not one that this server/,
        );
    },
  );

  it('let other sites change nothing of the workbench', () => {
    const from = (headers: Record<string, string>, path = '/api/bots') =>
      refusedAtDoor(at(`http://localhost:4173${path}`, { method: 'POST', headers }), own);
    expect(from({ origin: 'http://localhost:4173', 'sec-fetch-site': 'same-origin' })).toBeNull();
    expect(from({})).toBeNull();
    for (const origin of [
      'http://evil.example',
      'null',
      'https://localhost:4173',
      'http://localhost:4174',
      'http://evil@localhost:4173',
      'http://localhost:4173/x',
      'HTTP://localhost:4173',
    ])
      expect(from({ origin }), origin).toMatch(/another site/);
    expect(from({ 'sec-fetch-site': 'cross-site' })).toMatch(/another site/);
    // Programs and channels have no page, and no cookie counts there.
    expect(from({ origin: 'http://shop.example' }, '/channels/chat')).toBeNull();
  });
});

describe('answers', () => {
  // Opening the application is not wanted here: what fails before it is answered the same way.
  const told = (error: Error) =>
    answer(
      Object.defineProperty({}, 'locals', {
        get() {
          throw error;
        },
      }) as RequestEvent,
      'bot:read',
      () => Promise.resolve(),
    );

  it('are sentences with a fitting status where a person is the cause', async () => {
    expect((await told(new NotFoundError('Gone.'))).status).toBe(404);
    expect((await told(new ActError('No.'))).status).toBe(422);
    const refused = await told(new InputError('Bad.', [{ path: 'a', message: 'b' }]));
    expect(await refused.json()).toEqual({ message: 'Bad.', faults: [{ path: 'a', message: 'b' }], number: 1 });
  });

  it('do not hide errors that are ours', async () => {
    await expect(told(new Error('a bug'))).rejects.toThrow('a bug');
  });
});

describe('local time', () => {
  it('is that of the bot’s zone', () => {
    const moment = new Date('2026-07-01T23:30:00Z');
    expect(localNow('Europe/London', moment)).toBe('2026-07-02T00:30');
    expect(localNow('America/New_York', moment)).toBe('2026-07-01T19:30');
  });
});
