<script lang="ts">
  import { createVirtualizer } from '@tanstack/svelte-virtual';
  import { untrack } from 'svelte';
  import { get } from 'svelte/store';
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
  import { Pages } from '../shared/pages.svelte.js';

  /** The values of a list with their synonyms, of which only those on the screen are sent. */
  const { botId, entity }: { botId: number; entity: EntitySheet } = $props();

  const ROW_HEIGHT = 31;

  let scroller = $state<HTMLDivElement | null>(null);
  let added = $state('');

  const pages = new Pages<ListValue>(VALUES_PAGE, (from) =>
    send('GET', `/api/bots/${botId}/entities/${encodeURIComponent(entity.name)}/values?from=${from}`),
  );
  // What is shown first is drawn by the server too.
  // svelte-ignore state_referenced_locally
  pages.take(entity.page, entity.count);

  const virtualizer = createVirtualizer<HTMLDivElement, HTMLDivElement>({
    // svelte-ignore state_referenced_locally
    count: entity.count,
    getScrollElement: () => scroller,
    estimateSize: () => ROW_HEIGHT,
    overscan: 10,
    initialRect: { width: 0, height: 20 * ROW_HEIGHT },
  });

  $effect(() => {
    const { page, count } = entity;
    untrack(() => pages.take(page, count));
    const element = scroller;
    get(virtualizer).setOptions({ count: entity.count, getScrollElement: () => element });
  });

  $effect(() => {
    const items = $virtualizer.getVirtualItems();
    const [first, last] = [items[0], items.at(-1)];
    // What is loaded anew is shown anew.
    void entity.page;
    if (first && last) untrack(() => void pages.show(first.index, last.index).catch(tell));
  });

  $effect(() => {
    if (entity.row !== null && scroller) get(virtualizer).scrollToIndex(entity.row, { align: 'center' });
  });

  const measured = (node: HTMLDivElement) => {
    get(virtualizer).measureElement(node);
  };

  /** Adds a value a line. The field is emptied at once, so that typing on loses nothing. */
  async function add(text: string) {
    const rows = listLines(text).flatMap((line) => {
      const [value, ...synonyms] = splitParts(line);
      return value === undefined ? [] : [{ value, synonyms }];
    });
    added = '';
    if (rows.length === 0) return;
    const said = rows.length > 1 ? `Added ${counted(rows.length, 'value')}.` : undefined;
    if (await edit(botId, { do: 'addValues', entity: entity.name, values: rows }, said)) {
      get(virtualizer).scrollToIndex(entity.count - 1);
    } else added = added === '' ? text : `${text}, ${added}`;
  }

  const changeValue = ({ id }: ListValue, to: ValueChange) => keepEdit(botId, { do: 'changeValue', id, to });

  const removeValue = ({ id, value }: ListValue) =>
    edit(botId, { do: 'deleteValues', ids: [id] }, `Deleted “${value}”.`);

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
  <div class="rows" bind:this={scroller} role="table" aria-label="Values of {entity.name}" aria-rowcount={entity.count}>
    <div class="all" role="rowgroup" style:height="{$virtualizer.getTotalSize()}px">
      {#each $virtualizer
        .getVirtualItems()
        .filter(({ index }) => index < entity.count) as { index, start } (pages.row(index)?.id ?? index)}
        {@const item = pages.row(index)}
        <div
          class="line place"
          role="row"
          aria-rowindex={index + 1}
          data-index={index}
          style:transform="translateY({start}px)"
          {@attach measured}
        >
          <span role="cell" class="figure soft number">{index + 1}</span>
          {#if item}
            <span role="cell">
              <Cell
                look="customer"
                value={item.value}
                label="Value {index + 1}"
                keep={(text) => setValue(item, text)}
              />
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
      {/each}
    </div>
    {#if entity.count === 0}
      <div class="soft none" role="row">
        <span role="cell">No values yet. Write them below, or paste them all at once.</span>
      </div>
    {/if}
  </div>
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

  .rows {
    overflow-y: auto;
    min-height: 0;
  }

  .all {
    position: relative;
  }

  .place {
    position: absolute;
    top: 0;
    left: 0;
    width: 100%;
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
