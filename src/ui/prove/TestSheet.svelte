<script lang="ts">
  import { untrack } from 'svelte';
  import { MarkingError } from '$core/bot/marking.js';

  import type { SheetLine } from '$core/contract/prove.js';
  import type { Recognition } from '$core/recognise/recognition.js';
  import {
    proposedLabel,
    readPastedTests,
    rewrittenLine,
    writtenLine,
    type LineFlag,
  } from '$core/measure/testLines.js';
  import { inTurn, tell } from '../shared/acts.js';
  import { send } from '../shared/api.js';
  import { counted } from '../shared/format.js';
  import { grow } from '../shared/grow.js';
  import { refresh } from '../shared/live.svelte.js';
  import Act from '../shared/Act.svelte';
  import Reasons from '../shared/Reasons.svelte';
  import VirtualRows from '../shared/VirtualRows.svelte';
  import LineParts from './LineParts.svelte';
  import TestRow from './TestRow.svelte';

  /** The lines of a test set: written, pasted and labelled in one pass by keys. */
  const {
    botId,
    set,
    lines,
    all,
    intents,
  }: { botId: number; set: number; lines: SheetLine[]; all: number; intents: string[] } = $props();

  const ROW_HEIGHT = 34;
  const path = $derived(`/api/bots/${botId}/test-sets/${set}/lines`);

  let list: VirtualRows<SheetLine>;
  let sheet = $state<HTMLElement | null>(null);
  let added = $state('');
  let reasons = $state<string[]>([]);
  let chosen = $state<string | null>(null);
  /** What is being written anew. */
  let writing = $state<{ id: string; text: string } | null>(null);
  /** What the bot takes unlabelled lines for, by their text. */
  let proposals = $state.raw<ReadonlyMap<string, Recognition>>(new Map());
  const asked = new Set<string>();

  const rows = $derived(lines.map((line) => ({ id: String(line.id), line })));
  const current = $derived(
    Math.max(
      0,
      rows.findIndex(({ id }) => id === chosen),
    ),
  );
  const count = (flag: LineFlag) => lines.filter((line) => line.flag === flag).length;
  const FLAGS: readonly [LineFlag, string][] = [
    ['no label', 'without a label, in no figure'],
    ['taught', 'also taught, in no figure'],
    ['disagrees', 'labelled in two ways'],
    ['twice', 'standing twice'],
  ];
  const told = $derived(FLAGS.map(([flag, words]) => [count(flag), words] as const).filter(([number]) => number > 0));

  // Where a line is deleted, keys act on the one that comes into its place.
  let place = 0;
  $effect(() => {
    const all = rows;
    untrack(() => {
      const at = all.findIndex(({ id }) => id === chosen);
      if (at >= 0) place = at;
      else chosen = all[Math.min(place, all.length - 1)]?.id ?? null;
    });
  });

  async function work(method: 'POST' | 'PATCH' | 'DELETE', body: object): Promise<boolean> {
    try {
      await inTurn(() => send(method, path, body));
      await refresh();
      return true;
    } catch (error) {
      tell(error);
      return false;
    }
  }

  async function add() {
    const { good, bad } = readPastedTests(added, intents);
    const typed = added;
    added = bad.map(({ line }) => line).join('\n');
    reasons = bad.map(({ line, reason }) => `“${line.trim().slice(0, 60)}”: ${reason}.`);
    if (good.length === 0) return;
    if (await work('POST', { lines: good })) list.scrollTo(lines.length - 1);
    else added = typed;
  }

  /** Asks what the bot takes the unlabelled lines on the screen for. */
  async function propose(ids: readonly string[]) {
    const wanted = new Set(ids);
    for (const { id, line } of rows) {
      if (!wanted.has(id) || line.intent !== undefined || asked.has(line.text)) continue;
      asked.add(line.text);
      try {
        const read = await send<Recognition>('POST', `/api/bots/${botId}/recognise`, { text: line.text });
        proposals = new Map([...proposals, [line.text, read]]);
      } catch (error) {
        asked.delete(line.text);
        return tell(error);
      }
    }
  }

  async function focusRow(wanted: number) {
    const row = Math.max(0, Math.min(wanted, rows.length - 1));
    chosen = rows[row]?.id ?? null;
    const reached = await list.reach(row);
    reached?.element.querySelector<HTMLElement>('[data-row]')?.focus({ preventScroll: reached.near });
  }

  /** Labels a row and goes on to the next. */
  async function label(row: number, intent: string | null) {
    const line = rows[row]?.line;
    if (!line) return;
    // The next is come to at once: whoever labels by keys does not wait.
    const next = focusRow(row + 1);
    if (line.intent !== intent) await work('PATCH', { ids: [line.id], change: { intent } });
    await next;
  }

  const proposed = (line: SheetLine | undefined): string | null | undefined => {
    if (!line || line.intent !== undefined) return line?.intent;
    const read = proposals.get(line.text);
    return read && proposedLabel(read);
  };

  async function keepText() {
    const kept = writing;
    const line = rows.find(({ id }) => id === kept?.id)?.line;
    reasons = [];
    if (!kept || !line || kept.text.trim() === '' || kept.text === writtenLine(line)) {
      writing = null;
      return;
    }
    try {
      const change = rewrittenLine(line, kept.text);
      writing = null;
      const next = focusRow(current);
      await work('PATCH', { ids: [line.id], change });
      await next;
    } catch (error) {
      if (!(error instanceof MarkingError)) throw error;
      reasons = [`“${kept.text.trim().slice(0, 60)}”: ${error.message}. Esc brings back what was.`];
    }
  }

  function pressed(event: KeyboardEvent) {
    const origin = event.target as HTMLElement;
    if (!origin.hasAttribute('data-row')) return;
    const row = Number(origin.dataset['row']);
    const line = rows[row]?.line;
    if (!line) return;
    const steps: Record<string, number> = { ArrowDown: 1, ArrowUp: -1, PageDown: 15, PageUp: -15 };
    const step = steps[event.key];
    if (step !== undefined) void focusRow(row + step);
    else if (event.key === 'Home') void focusRow(0);
    else if (event.key === 'End') void focusRow(rows.length - 1);
    else if (event.key === 'Enter') {
      const intent = proposed(line);
      if (intent !== undefined) void label(row, intent);
    } else if (event.key === 'o') void label(row, null);
    else if (event.key === 't') sheet?.querySelector<HTMLInputElement>('.parts input')?.select();
    else if (event.key === 'i') origin.querySelector<HTMLInputElement>('input')?.focus();
    else if (event.key === 'F2' || event.key === 'e') writing = { id: rows[row]!.id, text: writtenLine(line) };
    else if (event.key === 'Delete') {
      place = row;
      void work('DELETE', { ids: [line.id] }).then(() => focusRow(row));
    } else return;
    event.preventDefault();
  }
</script>

<section class="sheet" bind:this={sheet} aria-label="Lines of the test set">
  <p class="told">
    {counted(all, 'line')}
    {#each told as [number, words] (words)}
      <span class="flag">· {number} {words}</span>
    {/each}
    {#if all > lines.length}
      <span class="flag">· the first {counted(lines.length, 'line')} can be worked on here</span>
    {/if}
    <span class="soft"
      >· <kbd>Enter</kbd> take the label · <kbd>I</kbd> choose an intent · <kbd>O</kbd> out of scope · <kbd>E</kbd> edit
      its words and <code>&lt;slot></code>s · <kbd>T</kbd> tags · <kbd>Del</kbd> delete</span
    >
  </p>
  <!-- The keys belong to the rows within, which are focusable; the grid only gathers them. -->
  <VirtualRows
    bind:this={list}
    {rows}
    rowHeight={ROW_HEIGHT}
    shown={(ids) => void propose(ids)}
    role="grid"
    aria-label="Test lines"
    tabindex={-1}
    onkeydown={pressed}
  >
    {#snippet row({ id, line }, index)}
      {#if line}
        <TestRow
          {line}
          row={index}
          {intents}
          current={current === index}
          proposal={proposals.get(line.text)}
          draft={writing?.id === id ? writing : null}
          focused={() => (chosen = id)}
          label={(intent) => void label(index, intent)}
          keep={() => void keepText()}
          cancel={() => {
            writing = null;
            void focusRow(index);
          }}
        />
      {/if}
    {/snippet}
    {#snippet none()}
      <p class="soft none">
        No lines yet. Write or paste below what customers wrote: one message a line, and after a tab its intent where
        you know it.
      </p>
    {/snippet}
  </VirtualRows>
  <div>
    {#if rows[current]}
      <LineParts
        line={rows[current].line}
        number={current + 1}
        {lines}
        change={(ids, change) => work('PATCH', { ids, change })}
      />
    {/if}
    <Reasons {reasons} />
  </div>
  <div class="add">
    <textarea
      bind:value={added}
      class="cell customer"
      rows="1"
      aria-label="New test lines"
      aria-invalid={reasons.length > 0 || undefined}
      placeholder="Write a message and press Enter, or paste many; a tab and an intent after it label it"
      onkeydown={(event) => {
        if (event.key !== 'Enter' || event.shiftKey) return;
        event.preventDefault();
        void add();
      }}
      {@attach grow}></textarea>
    <Act look="firm" disabled={added.trim() === ''} onclick={add}>Add</Act>
  </div>
</section>

<style>
  .sheet {
    display: grid;
    grid-template-rows: auto minmax(0, 1fr) auto auto;
    flex: 1;
    min-height: 0;
  }

  .told {
    padding: 0.4rem 0;
    font-size: 0.8125rem;
    border-bottom: 1px solid var(--line-strong);
  }

  .flag {
    color: var(--asked);
  }

  /* Items of a list follow each other without a blank. */
  .flag + .flag {
    margin-inline-start: 0.25em;
  }

  .none {
    padding: 1rem 0;
  }

  .add {
    grid-row: 4;
    display: flex;
    gap: 0.5rem;
    padding: 0.4rem 0;
    border-top: 1px solid var(--line);
    align-items: start;
  }

  .add textarea {
    border-color: var(--line-strong);
    font-size: 0.9375rem;
    max-height: 10rem;
    overflow-y: auto;
  }
</style>
