<script lang="ts">
  import { tick, untrack } from 'svelte';
  import { listLines, readPasted } from '$core/bot/pasted.js';
  import type { RowReference } from '$core/bot/acts/index.js';
  import type { RowId } from '$core/bot/document.js';
  import type { IntentSheet, UtteranceLine } from '$core/contract/teach.js';
  import { edit, keepEdit, tell } from '../shared/acts.js';
  import { counted } from '../shared/format.js';
  import { grow } from '../shared/grow.js';
  import Pick from '../shared/Pick.svelte';
  import Tick from '../shared/Tick.svelte';
  import { newRowId, OptimisticRows } from '../shared/optimistic.svelte.js';
  import type { Row, SheetRows } from '../shared/sheetRows.svelte.js';
  import VirtualRows from '../shared/VirtualRows.svelte';
  import type { SheetSelection } from './selection.svelte.js';
  import { lineOf } from './lineOf.js';
  import UtteranceRow from './UtteranceRow.svelte';
  import Act from '../shared/Act.svelte';
  import Reasons from '../shared/Reasons.svelte';

  const {
    botId,
    intent,
    intents,
    sheet,
    selection,
  }: {
    botId: number;
    intent: IntentSheet;
    intents: string[];
    sheet: SheetRows<UtteranceLine>;
    selection: SheetSelection;
  } = $props();

  const ROW_HEIGHT = 36;

  let list: VirtualRows<UtteranceLine>;
  /** The row that is being written in. What is written belongs to it, whatever becomes of the sheet meanwhile. */
  let draft = $state<{ id: RowId; was: string; text: string; refused: string | null } | null>(null);
  let added = $state('');
  let addInput: HTMLTextAreaElement;

  const overlay = new OptimisticRows<Row<UtteranceLine>>();
  const rows = $derived(overlay.apply(sheet.rows));
  const places = $derived(new Map(rows.map(({ id }, index) => [id, index])));
  const current = $derived(places.get(selection.row ?? '') ?? 0);

  // Whichever row keys act on is shown, wherever it was chosen; whoever scrolls on is left in peace.
  $effect(() => {
    const wanted = selection.row ?? '';
    const at = untrack(() => places.get(wanted));
    if (at !== undefined) list.scrollTo(at);
  });

  const chosen = () => rows.filter(({ id }) => selection.rows.has(id)).map(({ id }) => id);
  const referenceTo = ({ id, source }: UtteranceLine): RowReference => ({ id, was: source });

  /** Why lines stayed in the field. */
  let reasons = $state<string[]>([]);

  /** Puts lines back into the field, before what has been typed since. */
  const putBack = (lines: readonly string[]) => (added = [...lines, ...(added === '' ? [] : [added])].join('\n'));

  // A row that somebody else deletes leaves what is being written in it to the person who writes.
  $effect(() => {
    const lost = draft;
    if (!lost || places.has(lost.id)) return;
    untrack(() => {
      draft = null;
      if (lost.text.trim() === '' || lost.text === lost.was) return;
      putBack([lost.text]);
      reasons = [
        `The row “${lost.was.slice(0, 60)}” was deleted meanwhile; what was being written in it stands below.`,
      ];
    });
  });

  /**
   * Adds the lines that can be kept; the others stay in the field with their reason. The field is emptied at once, so
   * that typing on loses nothing and pressing Enter again adds nothing twice.
   */
  async function add(text: string) {
    const { good, bad } = readPasted(text, intent.known);
    added = bad.map(({ line }) => line).join('\n');
    reasons = bad.map(
      ({ line, reason }) => `“${line.slice(0, 60)}”: ${reason.replace(/\?$/, '')}${reason.endsWith('?') ? '?' : '.'}`,
    );
    if (good.length === 0) return;
    const said = good.length > 1 ? `Added ${counted(good.length, 'utterance')}.` : undefined;
    const ids = good.map(newRowId);
    const act = { do: 'addUtterances' as const, intent: intent.name, utterances: good, ids };
    const drawn = good.map((written, index) => ({ id: ids[index]!, line: lineOf(ids[index]!, written) }));
    const adding = overlay.adding(drawn, () => edit(botId, act, said));
    await tick();
    list.scrollTo(rows.length - 1);
    if (!(await adding)) putBack(good);
  }

  async function remove(wanted: RowId[]) {
    const lines = await sheet.lines(wanted);
    if (lines.length === 0) return;
    const act = { do: 'deleteUtterances' as const, rows: lines.map(referenceTo) };
    const said = `Deleted ${counted(lines.length, 'utterance')}.`;
    const ids = new Set(lines.map(({ id }) => id));
    if (await overlay.removing(ids, () => edit(botId, act, said))) selection.rows = new Set();
  }

  async function move(to: string) {
    const lines = await sheet.lines(chosen());
    if (lines.length === 0) return;
    const act = { do: 'moveUtterances' as const, rows: lines.map(referenceTo), to };
    const said = `Moved ${counted(lines.length, 'utterance')} to ${to}.`;
    const ids = new Set(lines.map(({ id }) => id));
    if (await overlay.removing(ids, () => edit(botId, act, said))) selection.rows = new Set();
  }

  async function write(wanted: RowId) {
    const line = rows[places.get(wanted) ?? -1]?.line ?? (await sheet.lines([wanted]))[0];
    if (line) draft = { id: line.id, was: line.source, text: line.source, refused: null };
  }

  /** Keeps what was written in a row; lines pasted into it become rows of their own. @returns whether it was kept */
  async function keep({ id, was, text }: { id: RowId; was: string; text: string }): Promise<boolean> {
    const [first, ...rest] = readPasted(text, intent.known).good;
    if (first === undefined && text.trim() === '') {
      await remove([id]);
      return true;
    }
    // A row whose marking cannot be read is refused with the reason; what was typed stays in it.
    const to = first ?? text;
    if (to !== was) {
      const work = () => keepEdit(botId, { do: 'changeUtterance', row: { id, was }, to });
      // What cannot be read is shown by the refusal.
      const line = lineOf(id, to);
      const change = (row: Row<UtteranceLine>) => (row.line?.source === line.source ? row : { id, line });
      const kept = await (first === undefined ? work() : overlay.changing(id, change, work));
      if (kept !== true) {
        // Whoever reads that the row has changed and keeps it again means it.
        const now = rows[places.get(id) ?? -1]?.line?.source ?? was;
        draft = { id, was: now, text, refused: kept };
        return false;
      }
    }
    if (rest.length > 0) {
      await edit(botId, { do: 'addUtterances', intent: intent.name, after: id, utterances: rest });
    }
    return true;
  }

  async function commit(next: boolean) {
    const kept = draft;
    if (!kept) return;
    draft = null;
    const row = places.get(kept.id) ?? 0;
    if (!(await keep(kept))) return;
    // Something else may be written by now.
    if (draft !== null) return;
    if (!next) return void (document.activeElement === document.body && (await focusRow(row)));
    const following = rows[row + 1];
    if (following && places.has(kept.id)) {
      await focusRow(row + 1);
      await write(following.id);
    } else addInput.focus();
  }

  async function focusRow(wanted: number) {
    const row = Math.max(0, Math.min(wanted, rows.length - 1));
    selection.row = rows[row]?.id ?? null;
    const reached = await list.reach(row);
    reached?.element.querySelector<HTMLElement>('[data-row]')?.focus({ preventScroll: reached.near });
  }

  const idsBetween = (from: number, to: number): RowId[] =>
    rows.slice(Math.max(0, Math.min(from, to)), Math.max(from, to) + 1).map(({ id }) => id);

  function pressed(event: KeyboardEvent) {
    const origin = event.target as HTMLElement;
    if (!origin.hasAttribute('data-row')) return;
    const row = Number(origin.dataset['row']);
    const id = rows[row]?.id;
    if (id === undefined) return;
    const steps: Record<string, number> = { ArrowDown: 1, ArrowUp: -1, PageDown: 15, PageUp: -15 };
    const step = steps[event.key];
    if (step !== undefined) {
      if (event.shiftKey) selection.add(idsBetween(row, row + step));
      void focusRow(row + step);
    } else if (event.key === 'Home') void focusRow(0);
    else if (event.key === 'End') void focusRow(rows.length - 1);
    else if (event.key === 'Enter' || event.key === 'F2') void write(id);
    else if (event.key === ' ') selection.toggle(id);
    else if (event.key === 'Delete') void remove(selection.rows.size > 0 ? chosen() : [id]);
    else if (event.key === 'm') selection.words = { row: id, start: 0, end: 0 };
    else if (event.key === 'a' && (event.ctrlKey || event.metaKey)) selection.add(rows.map(({ id }) => id));
    else return;
    event.preventDefault();
  }

  function addPressed(event: KeyboardEvent) {
    if (event.key !== 'Enter' || event.shiftKey) return;
    event.preventDefault();
    void add(added);
  }

  function addPasted(event: ClipboardEvent) {
    const text = event.clipboardData?.getData('text/plain') ?? '';
    if (listLines(text).length < 2) return;
    event.preventDefault();
    void add(added + text);
  }
</script>

<div class="sheet">
  <div class="tools">
    <Tick
      label="Select all rows"
      hideLabel
      checked={rows.length > 0 && chosen().length === rows.length}
      keep={(all) => void (all ? selection.add(rows.map(({ id }) => id)) : (selection.rows = new Set()))}
    />
    {#if selection.rows.size > 0}
      <span>{counted(selection.rows.size, 'row')} selected</span>
      <div class="to">
        <Pick
          label="Move the selected rows to"
          placeholder="Move to …"
          value={null}
          options={intents.filter((name) => name !== intent.name)}
          choose={move}
        />
      </div>
      <Act look="grave" onclick={() => remove(chosen())}>Delete rows</Act>
    {:else}
      <span class="soft"
        >held out · <kbd>Enter</kbd> edit · <kbd>Space</kbd> select · <kbd>M</kbd> mark words · <kbd>Del</kbd> delete</span
      >
    {/if}
  </div>
  <!-- The keys belong to the rows within, which are focusable; the grid only gathers them. -->
  <VirtualRows
    bind:this={list}
    {rows}
    rowHeight={ROW_HEIGHT}
    shown={(ids) => void sheet.show(ids).catch(tell)}
    role="grid"
    aria-label="Utterances of {intent.name}"
    aria-multiselectable="true"
    tabindex={-1}
    onkeydown={pressed}
  >
    {#snippet row({ id, line }, index)}
      <UtteranceRow
        {id}
        {line}
        row={index}
        {intent}
        {selection}
        current={current === index}
        draft={draft?.id === id ? draft : null}
        edit={() => void write(id)}
        {commit}
        cancel={() => {
          draft = null;
          void focusRow(index);
        }}
      />
    {/snippet}
    {#snippet none()}
      <p class="soft none">
        No utterances yet. Write ten to fifteen below, each built differently, or paste them all at once.
      </p>
    {/snippet}
  </VirtualRows>
  <Reasons {reasons} />
  <div class="add">
    <textarea
      bind:this={addInput}
      bind:value={added}
      class="cell customer"
      rows="1"
      aria-label="New utterance"
      aria-invalid={reasons.length > 0 || undefined}
      placeholder="Write an utterance and press Enter, or paste many lines"
      onkeydown={addPressed}
      onpaste={addPasted}
      {@attach grow}></textarea>
    <Act look="firm" disabled={added.trim() === ''} onclick={() => add(added)}>Add</Act>
  </div>
</div>

<style>
  .sheet {
    display: grid;
    grid-template-rows: auto minmax(0, 1fr) auto auto;
    min-height: 0;
  }

  .tools {
    display: flex;
    align-items: center;
    gap: 0.75rem;
    min-height: 2rem;
    padding: 0.2rem 0.75rem;
    border-bottom: 1px solid var(--line-strong);
    font-size: 0.8125rem;
  }

  .to {
    width: 14rem;
  }

  .none {
    padding: 1rem 0.75rem;
  }

  .add {
    grid-row: 4;
    display: flex;
    gap: 0.5rem;
    padding: 0.4rem 0.75rem;
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
