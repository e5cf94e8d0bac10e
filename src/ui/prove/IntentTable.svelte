<script lang="ts">
  import { DataTable } from 'carbon-components-svelte';
  import type { ClassMeasure } from '$core/measure/classification.js';
  import Bar from '../shared/Bar.svelte';
  import { share } from '../shared/format.js';

  const { intents }: { intents: ClassMeasure[] } = $props();

  /** Below this F1 an intent needs work. */
  const POOR = 0.7;

  const headers = [
    { key: 'intent', value: 'Intent' },
    { key: 'support', value: 'Lines' },
    { key: 'precision', value: 'Precision' },
    { key: 'recall', value: 'Recall' },
    { key: 'f1', value: 'F1' },
  ] as const;
  const worstFirst = $derived(
    [...intents].sort((a, b) => (a.f1 ?? 2) - (b.f1 ?? 2)).map((measure) => ({ id: measure.intent, ...measure })),
  );
</script>

<div role="group" aria-label="Intents, the worst first">
  <DataTable size="compact" sortable {headers} rows={worstFirst}>
    <svelte:fragment slot="cell" let:cell>
      {#if cell.key === 'intent'}
        {cell.value}
      {:else if cell.key === 'support'}
        <span class="figure">{cell.value}</span>
      {:else}
        <span class="figure share">{share(cell.value)}</span>
        {#if cell.key === 'f1'}
          <Bar value={cell.value} tone={cell.value !== null && cell.value < POOR ? 'none' : 'reed'} />
        {/if}
      {/if}
    </svelte:fragment>
  </DataTable>
</div>

<style>
  /* ".97" and "1.00" end at the same place, and so do their bars begin. */
  .share {
    display: inline-block;
    min-width: 4ch;
    margin-right: 0.25rem;
    text-align: right;
  }
</style>
