<script lang="ts" generics="Line">
  import { createVirtualizer } from '@tanstack/svelte-virtual';
  import { tick, untrack, type Snippet } from 'svelte';
  import { get } from 'svelte/store';
  import type { HTMLAttributes } from 'svelte/elements';
  import type { RowId } from '$core/bot/document.js';
  import type { Row } from './sheetRows.svelte.js';

  /** The rows of a long sheet, of which only those near the screen are drawn. */
  const {
    rows,
    rowHeight,
    shown,
    row: draw,
    none,
    ...rest
  }: {
    rows: readonly Row<Line>[];
    /** Of a row that was not drawn yet, in pixels. */
    rowHeight: number;
    /** Told of the rows that are drawn, whenever these or the sheet change. */
    shown: (ids: RowId[]) => void;
    row: Snippet<[Row<Line>, number]>;
    /** What stands there while there are no rows. */
    none: Snippet;
  } & HTMLAttributes<HTMLDivElement> = $props();

  /** Rows that the server draws. */
  const FIRST = 20;
  /** How long a row far away may take to be drawn, in frames. */
  const MOST_FRAMES = 30;

  let scroller = $state<HTMLDivElement | null>(null);

  const virtualizer = createVirtualizer<HTMLDivElement, HTMLDivElement>({
    // svelte-ignore state_referenced_locally
    count: rows.length,
    getScrollElement: () => scroller,
    estimateSize: () => rowHeight,
    overscan: 12,
    // svelte-ignore state_referenced_locally
    initialRect: { width: 0, height: FIRST * rowHeight },
  });

  $effect(() => {
    const all = rows;
    const element = scroller;
    get(virtualizer).setOptions({
      count: all.length,
      getScrollElement: () => element,
      getItemKey: (index) => all[index]?.id ?? index,
    });
  });

  $effect(() => {
    const ids = $virtualizer.getVirtualItems().flatMap(({ index }) => rows[index]?.id ?? []);
    untrack(() => shown(ids));
  });

  const measured = (node: HTMLDivElement) => {
    get(virtualizer).measureElement(node);
  };

  /** Scrolls to a row. @param align `auto` moves nothing where it is on the screen already */
  export function scrollTo(index: number, align: 'auto' | 'center' = 'auto'): void {
    if (scroller) get(virtualizer).scrollToIndex(index, { align });
  }

  /** Scrolls to a row and waits until it is drawn. @returns what is drawn, and whether it was near */
  export async function reach(index: number): Promise<{ element: HTMLElement; near: boolean } | null> {
    scrollTo(index);
    for (let frame = 0; frame < MOST_FRAMES; frame++) {
      await tick();
      const element = scroller?.querySelector<HTMLElement>(`:scope > .all > [data-index="${index}"]`);
      if (element) return { element, near: frame === 0 };
      await new Promise(requestAnimationFrame);
    }
    return null;
  }
</script>

<div class="rows" bind:this={scroller} aria-rowcount={rows.length} {...rest}>
  <div class="all" style:height="{$virtualizer.getTotalSize()}px">
    {#each $virtualizer
      .getVirtualItems()
      .filter(({ index }) => index < rows.length) as { index, start } (rows[index]!.id)}
      <div class="place" data-index={index} style:transform="translateY({start}px)" {@attach measured}>
        {@render draw(rows[index]!, index)}
      </div>
    {/each}
  </div>
  {#if rows.length === 0}{@render none()}{/if}
</div>

<style>
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
</style>
