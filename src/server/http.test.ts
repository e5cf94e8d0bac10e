import { describe, expect, it } from 'vitest';
import { editSchema } from '../core/bot/editSchema.js';
import { EditError } from '../core/bot/edit.js';
import { answer, InputError, loading, NotFoundError, pathNumber, readJson, readText } from './http.js';
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

  it.each<[string, unknown]>([
    ['no act at all', { do: 'dropTables' }],
    ['a part of the wrong kind', { do: 'addIntent', name: 7 }],
    ['a part too many', { do: 'addIntent', name: 'a', admin: true }],
    ['rows without what they were', { do: 'deleteUtterances', intent: 'a', rows: [{ index: 0 }] }],
    ['a row number below zero', { do: 'changeUtterance', intent: 'a', row: { index: -1, was: '' }, to: 'b' }],
    ['an entity of no kind', { do: 'addEntity', entity: { name: 'a', kind: 'magic' } }],
    ['a form with a slot that has no entity', { do: 'addSlot', form: 'f', slot: { name: 's' } }],
    ['a part to change that is not known', { do: 'changeForm', name: 'f', to: { slots: [] } }],
    ['settings that are not known', { do: 'changeSettings', to: { entities: [] } }],
    ['a list', []],
    ['nothing', null],
  ])('refuse %s', async (_, body) => {
    await expect(readJson(request(JSON.stringify(body)), editSchema)).rejects.toThrow(InputError);
  });

  it('take acts as they are', async () => {
    const act = {
      do: 'addSlot',
      form: 'f',
      slot: { name: 's', entity: 'number', required: true, prompts: ['How many?'] },
    };
    expect(await readJson(request(JSON.stringify(act)), editSchema)).toEqual(act);
    await expect(readJson(request('{'), editSchema)).rejects.toThrow(/cannot be read as JSON/);
  });
});

describe('answers', () => {
  const statusOf = async (error: Error) => (await answer(() => Promise.reject(error))).status;

  it('are sentences with a fitting status where a person is the cause', async () => {
    expect(await statusOf(new NotFoundError('Gone.'))).toBe(404);
    expect(await statusOf(new EditError('No.'))).toBe(422);
    const refused = await answer(() => Promise.reject(new InputError('Bad.', [{ path: 'a', message: 'b' }])));
    expect(await refused.json()).toEqual({ message: 'Bad.', faults: [{ path: 'a', message: 'b' }] });
  });

  it('do not hide errors that are ours', async () => {
    await expect(answer(() => Promise.reject(new Error('a bug')))).rejects.toThrow('a bug');
    await expect(loading(() => Promise.reject(new Error('a bug')))).rejects.toThrow('a bug');
  });

  it('of pages carry the sentence too', async () => {
    await expect(loading(() => Promise.reject(new NotFoundError('Gone.')))).rejects.toMatchObject({
      status: 404,
      body: { message: 'Gone.' },
    });
  });
});

describe('local time', () => {
  it('is that of the bot’s zone', () => {
    const moment = new Date('2026-07-01T23:30:00Z');
    expect(localNow('Europe/London', moment)).toBe('2026-07-02T00:30');
    expect(localNow('America/New_York', moment)).toBe('2026-07-01T19:30');
  });
});
