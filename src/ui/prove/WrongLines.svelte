<script lang="ts">
  import type { WrongLine } from '$core/contract/prove.js';
  import { OUT_OF_SCOPE } from '$core/measure/classification.js';
  import { counted, share } from '../shared/format.js';
  import Gloss from '../shared/Gloss.svelte';
  import OutcomeMark from '../shared/OutcomeMark.svelte';
  import { probe } from '../probe/probe.svelte.js';

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
</script>

<section aria-label="Wrong lines">
  <div class="head">
    <h2>{cell ? `${cell.expected} read as ${cell.predicted}` : 'Wrong lines, sure and wrong first'}</h2>
    <span class="soft">{counted(shown.length, 'line')}</span>
    {#if cell}<button class="quiet" onclick={showAll}>Show all</button>{/if}
  </div>
  <table class="sheet">
    <thead>
      <tr>
        <th scope="col">Outcome</th>
        <th scope="col">Message</th>
        <th scope="col">Is</th>
        <th scope="col">Read as</th>
        <th scope="col" class="number">Confidence</th>
        <th scope="col"><span class="unseen">Acts</span></th>
      </tr>
    </thead>
    <tbody>
      {#each shown as line, index (index)}
        <tr>
          <td class="verdict"><OutcomeMark decision={line.decision} /> {line.verdict}</td>
          <td>
            <Gloss text={line.text} spans={[]} />
            {#if line.unread}<p class="soft">{line.unread.join(', ')} could not be looked for in it</p>{/if}
          </td>
          <td>
            {#if line.expected}<a href="/bots/{botId}/teach?intent={encodeURIComponent(line.expected)}"
                >{line.expected}</a
              >{:else}out of scope{/if}
          </td>
          <td
            >{line.predicted ?? '–'}{#if line.place !== null && line.place > 1}<span class="soft place"
                >, right one at {line.place}</span
              >{/if}</td
          >
          <td class="number">{share(line.confidence)}</td>
          <td>
            <button
              class="quiet"
              aria-label="Put this message into the probe"
              onclick={() => {
                probe.text = line.text;
                probe.focus();
              }}>Probe</button
            >
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
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
