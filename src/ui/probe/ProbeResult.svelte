<script lang="ts">
  import type { Recognition } from '$core/recognise/recognition.js';
  import Gloss from '../shared/Gloss.svelte';
  import { share } from '../shared/format.js';
  import OutcomeMark from '../shared/OutcomeMark.svelte';
  import { showValue } from '$core/recognise/value.js';
  import { decisionInWords } from './decision.js';

  const { recognition }: { recognition: Recognition } = $props();
</script>

<div class="read">
  <span class="text">
    <Gloss
      text={recognition.text}
      spans={recognition.slots.map(({ start, end, slot, value }) => ({
        start,
        end,
        label: slot,
        title: showValue(value),
      }))}
    />
  </span>
  <span class="outcome">
    <OutcomeMark decision={recognition.decision} />
    <span data-testid="probe-decision">{decisionInWords(recognition)}</span>
  </span>
  <ol>
    {#if recognition.failed.length > 0}
      <li>{recognition.failed.join(', ')} could not be looked for in it</li>
    {/if}
    {#each recognition.ranking.slice(0, 3) as item (item.intent)}
      <li><span>{item.intent}</span> <span class="figure">{share(item.confidence)}</span></li>
    {/each}
  </ol>
</div>

<style>
  .read {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    align-items: center;
    gap: 1.25rem;
    width: 100%;
  }

  .text {
    max-height: 4.5rem;
    overflow: hidden;
  }

  .outcome {
    display: flex;
    gap: 0.35rem;
    align-items: center;
    font-weight: 600;
    max-width: 22rem;
  }

  ol {
    display: flex;
    gap: 0.9rem;
    font-size: 0.8125rem;
    white-space: nowrap;
  }
</style>
