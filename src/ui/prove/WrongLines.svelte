<script lang="ts">
  import { DataTable } from 'carbon-components-svelte';
  import type { WrongLine } from '$core/contract/prove.js';
  import { OUT_OF_SCOPE } from '$core/measure/classification.js';
  import { counted, share } from '../shared/format.js';
  import Gloss from '../shared/Gloss.svelte';
  import OutcomeMark from '../shared/OutcomeMark.svelte';
  import { probe } from '../probe/probe.svelte.js';
  import Act from '../shared/Act.svelte';

  const {
    botId,
    lines,
    cell,
    showAll,
  }: { botId: number; lines: WrongLine[]; cell: { expected: string; predicted: string } | null; showAll: () => void } =
    $props();

  const shown = $derived(
    cell
      ? lines.filter((line) => (line.expected ?? OUT_OF_SCOPE) === cell.expected && line.predicted === cell.predicted)
      : lines,
  );

  const headers = [
    { key: 'verdict', value: 'Outcome' },
    { key: 'text', value: 'Message' },
    { key: 'expected', value: 'Is' },
    { key: 'predicted', value: 'Read as' },
    { key: 'confidence', value: 'Confidence' },
    { key: 'acts', value: 'Acts', sort: false as const },
  ] as const;
  const rows = $derived(
    shown.map(({ verdict, text, expected, predicted, confidence }, id) => ({
      id,
      verdict,
      text,
      expected: expected ?? '',
      predicted: predicted ?? '',
      confidence,
      acts: '',
    })),
  );
</script>

<section aria-label="Wrong lines">
  <div class="head">
    <h2>{cell ? `${cell.expected} read as ${cell.predicted}` : 'Wrong lines, sure and wrong first'}</h2>
    <span class="soft">{counted(shown.length, 'line')}</span>
    {#if cell}<Act onclick={showAll}>Show all</Act>{/if}
  </div>
  <DataTable size="compact" sortable {headers} {rows}>
    <svelte:fragment slot="cell" let:row let:cell>
      {@const line = shown[row.id]!}
      {#if cell.key === 'verdict'}
        <span class="verdict"><OutcomeMark decision={line.decision} /> {line.verdict}</span>
      {:else if cell.key === 'text'}
        <Gloss text={line.text} spans={[]} />
        {#if line.unread}<p class="soft">{line.unread.join(', ')} could not be looked for in it</p>{/if}
      {:else if cell.key === 'expected'}
        {#if line.expected}
          <a href="/bots/{botId}/teach?intent={encodeURIComponent(line.expected)}">{line.expected}</a>
        {:else}out of scope{/if}
      {:else if cell.key === 'predicted'}
        {line.predicted ?? '–'}{#if line.place !== null && line.place > 1}<span class="soft place"
            >, right one at {line.place}</span
          >{/if}
      {:else if cell.key === 'confidence'}
        <span class="figure">{share(line.confidence)}</span>
      {:else}
        <Act
          label="Put this message into the probe"
          onclick={() => {
            probe.text = line.text;
            probe.focus();
          }}>Probe</Act
        >
      {/if}
    </svelte:fragment>
  </DataTable>
</section>

<style>
  .place {
    white-space: nowrap;
  }

  section {
    margin-top: 1rem;
  }

  .head {
    display: flex;
    gap: 0.75rem;
    align-items: baseline;
  }

  .verdict {
    white-space: nowrap;
  }
</style>
