<script lang="ts">
  import { page } from '$app/state';
  import { tick, untrack } from 'svelte';
  import type { ValueChange } from '$core/bot/acts/index.js';
  import type { ListValue } from '$core/bot/document.js';
  import { joinParts, listLines, splitParts } from '$core/bot/pasted.js';
  import { VALUES_PAGE, type EntitySheet } from '$core/contract/teach.js';
  import Act from '../shared/Act.svelte';
  import { edit, keepEdit, tell } from '../shared/acts.js';
  import { send } from '../shared/api.js';
  import Cell from '../shared/Cell.svelte';
  import { counted } from '../shared/format.js';
  import { grow } from '../shared/grow.js';
  import { newRowId, OptimisticRows } from '../shared/optimistic.svelte.js';
  import { SheetRows, type Row } from '../shared/sheetRows.svelte.js';
  import VirtualRows from '../shared/VirtualRows.svelte';

  /** The values of a list with their synonyms, of which only those on the screen are sent. */
  const { botId, entity }: { botId: number; entity: EntitySheet } = $props();

  const ROW_HEIGHT = 31;

  let added = $state('');
  let list: VirtualRows<ListValue>;

  const sheet = new SheetRows<ListValue>(VALUES_PAGE, (name, from) =>
    send('GET', `/api/bots/${botId}/entities/${encodeURIComponent(name)}/values?from=${from}`),
  );
  // What is shown first is drawn by the server too.
  // svelte-ignore state_referenced_locally
  sheet.take(entity);

  const overlay = new OptimisticRows<Row<ListValue>>();
  const rows = $derived(overlay.apply(sheet.rows));

  $effect.pre(() => {
    const now = entity;
    untrack(() => sheet.take(now));
  });

  // Whoever comes for a value finds it shown.
  $effect(() => {
    const wanted = page.url.searchParams.get('row');
    const at = untrack(() => rows.findIndex(({ id }) => id === wanted));
    if (at !== -1) list.scrollTo(at, 'center');
  });

  /** Adds a value a line. The field is emptied at once, so that typing on loses nothing. */
  async function add(text: string) {
    const values = listLines(text).flatMap((line) => {
      const [value, ...synonyms] = splitParts(line);
      return value === undefined ? [] : [{ value, synonyms }];
    });
    added = '';
    if (values.length === 0) return;
    const said = values.length > 1 ? `Added ${counted(values.length, 'value')}.` : undefined;
    const ids = values.map(newRowId);
    const drawn = values.map((value, index) => ({ id: ids[index]!, line: { id: ids[index]!, ...value } }));
    const adding = overlay.adding(drawn, () =>
      edit(botId, { do: 'addValues', entity: entity.name, values, ids }, said),
    );
    await tick();
    list.scrollTo(rows.length - 1);
    if (!(await adding)) added = added === '' ? text : `${text}, ${added}`;
  }

  const changeValue = ({ id }: ListValue, to: ValueChange) => keepEdit(botId, { do: 'changeValue', id, to });

  async function removeValue({ id, value }: ListValue): Promise<boolean> {
    const at = rows.findIndex((row) => row.id === id);
    const act = { do: 'deleteValues' as const, ids: [id] };
    const removing = overlay.removing(new Set([id]), () => edit(botId, act, `Deleted “${value}”.`));
    await tick();
    // The focus went with the row; it belongs where the next one has come.
    if (document.activeElement === document.body && rows.length > 0) {
      const next = await list.reach(Math.min(at, rows.length - 1));
      next?.element.querySelector('button')?.focus();
    }
    return removing;
  }

  /** An emptied row is a deleted one. */
  const setValue = (item: ListValue, to: string) =>
    to.trim() === '' ? removeValue(item) : changeValue(item, { value: to });

  function pressed(event: KeyboardEvent) {
    if (event.key !== 'Enter' || event.shiftKey) return;
    event.preventDefault();
    void add(added);
  }

  function pasted(event: ClipboardEvent) {
    const text = event.clipboardData?.getData('text/plain') ?? '';
    if (!text.trim().includes('\n')) return;
    event.preventDefault();
    void add(text);
  }
</script>

<div class="values">
  <div class="head line" aria-hidden="true">
    <span></span><span>Value</span><span>Also said as, parted by commas</span><span></span>
  </div>
  <VirtualRows
    bind:this={list}
    {rows}
    rowHeight={ROW_HEIGHT}
    shown={(ids) => void sheet.show(ids).catch(tell)}
    role="table"
    aria-label="Values of {entity.name}"
  >
    {#snippet row({ line: item }, index)}
      <div class="line" role="row" aria-rowindex={index + 1}>
        <span role="cell" class="figure soft number">{index + 1}</span>
        {#if item}
          <span role="cell">
            <Cell look="customer" value={item.value} label="Value {index + 1}" keep={(text) => setValue(item, text)} />
          </span>
          <span role="cell">
            <Cell
              look="customer"
              value={joinParts(item.synonyms)}
              label="Synonyms of {item.value}"
              keep={(text) => changeValue(item, { synonyms: splitParts(text) })}
            />
          </span>
          <span role="cell">
            <Act icon="delete" look="grave" label="Delete {item.value}" onclick={() => removeValue(item)} />
          </span>
        {:else}
          <span role="cell" class="soft">…</span>
        {/if}
      </div>
    {/snippet}
    {#snippet none()}
      <div class="soft none" role="row">
        <span role="cell">No values yet. Write them below, or paste them all at once.</span>
      </div>
    {/snippet}
  </VirtualRows>
  <div class="add">
    <textarea
      class="cell customer"
      rows="1"
      bind:value={added}
      onkeydown={pressed}
      onpaste={pasted}
      aria-label="New value"
      placeholder="A new value, with synonyms after commas (one with a comma in quotes); or paste many lines"
      {@attach grow}></textarea>
    <Act look="firm" disabled={added.trim() === ''} onclick={() => add(added)}>Add</Act>
  </div>
</div>

<style>
  .values {
    display: grid;
    grid-template-rows: auto minmax(0, 1fr) auto;
    min-height: 0;
  }

  .line {
    display: grid;
    grid-template-columns: 2.5rem 14rem minmax(0, 1fr) auto;
    gap: 0.5rem;
    align-items: start;
    padding: 0.1rem 0.75rem;
    border-bottom: 1px solid var(--line);
  }

  .head {
    padding-block: 0.3rem;
    border-bottom-color: var(--line-strong);
    font-size: 0.75rem;
    font-weight: 600;
    color: var(--ink-soft);
  }

  .head span {
    padding-left: 0.35rem;
  }

  .number {
    padding-top: 0.35rem;
    font-size: 0.75rem;
    text-align: right;
  }

  .none {
    padding: 1rem 0.75rem;
  }

  .add {
    display: flex;
    gap: 0.5rem;
    align-items: start;
    padding: 0.4rem 0.75rem;
    border-top: 1px solid var(--line);
  }

  .add textarea {
    border-color: var(--line-strong);
    max-height: 10rem;
    overflow-y: auto;
  }
</style>
