<script lang="ts">
  import type { ComparisonView, ProveView, TestSetSummary } from '$core/contract/prove.js';
  import { counted, moment, share } from '../shared/format.js';
  import Act from '../shared/Act.svelte';
  import Comparison from './Comparison.svelte';
  import ConfusionChart from './ConfusionChart.svelte';
  import Figures from './Figures.svelte';
  import Groups from './Groups.svelte';
  import IntentTable from './IntentTable.svelte';
  import Reliability from './Reliability.svelte';
  import Thresholds from './Thresholds.svelte';

  /** A run on paper: one page to print or to keep, and its figures as files. */
  const {
    bot,
    set,
    run,
    comparison,
  }: {
    bot: { id: number; name: string };
    set: TestSetSummary;
    run: NonNullable<ProveView['run']>;
    comparison: ComparisonView | null;
  } = $props();

  const file = $derived(`/api/bots/${bot.id}/test-sets/${set.id}/runs/${run.id}`);
  const inScope = $derived(run.evaluation.inScope);
  const bounds = $derived(
    run.interval &&
      `${(run.interval.low * 100).toFixed(0)} to ${(run.interval.high * 100).toFixed(0)} % on other messages like these`,
  );
</script>

<article class="report">
  <div class="tools">
    <Act look="main" onclick={() => window.print()}>Print or save as PDF</Act>
    <Act look="firm" href="{file}?format=csv" download>Lines as CSV</Act>
    <Act look="firm" href="{file}?format=json" download>Figures as JSON</Act>
    <Act href="/bots/{bot.id}/prove?set={set.id}&run={run.id}">Back to Prove</Act>
  </div>
  <h1>{bot.name}: {set.name}</h1>
  <p class="soft">
    Run of {moment(run.ranAt)}, change {run.revision}, read by {run.reader ??
      'a version that did not keep what read it'}.
    {counted(run.lines, 'line')}, {inScope} of them in scope{run.taught.length > 0
      ? `; ${run.taught.length} more that the bot was also taught are left out`
      : ''}.
    {#if bounds}Accuracy may well lie at {bounds} (95 %, Wilson).{/if}
  </p>
  <Figures evaluation={run.evaluation} />
  {#if comparison}<Comparison {comparison} />{/if}
  <div class="both">
    <IntentTable intents={run.evaluation.intents} />
    <div>
      <ConfusionChart confusion={run.evaluation.confusion} />
      <Reliability bins={run.evaluation.calibration} />
    </div>
  </div>
  <div class="both">
    <Groups evaluation={run.evaluation} />
    <Thresholds thresholds={run.thresholds} />
  </div>
  <h2>Wrong lines ({run.wrong.length})</h2>
  <table class="sheet">
    <thead>
      <tr>
        <th scope="col">Message</th><th scope="col">Is</th><th scope="col">Read as</th><th scope="col">Confidence</th
        ><th scope="col">Outcome</th>
      </tr>
    </thead>
    <tbody>
      {#each run.wrong as line, at (at)}
        <tr>
          <td class="customer">{line.text}</td>
          <td>{line.expected ?? 'out of scope'}</td>
          <td>{line.predicted ?? '–'}</td>
          <td class="figure">{share(line.confidence)}</td>
          <td>{line.verdict}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</article>

<style>
  .report {
    height: 100%;
    overflow-y: auto;
    padding: 0.75rem 1.5rem 2rem;
  }

  .tools,
  h1 {
    padding-top: 0.75rem;
    font-size: 1.25rem;
  }

  h2 {
    padding: 0.75rem 0 0.25rem;
    font-size: 0.9375rem;
  }

  .both {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 1.25rem;
    align-items: start;
  }

  /* On paper the page stands alone and as long as it is. */
  @media print {
    .report {
      height: auto;
      overflow: visible;
      padding: 0;
    }

    .tools {
      display: none;
    }

    tr {
      break-inside: avoid;
    }

    :global(.frame:has(.report)) {
      display: block !important;
      height: auto !important;
    }

    :global(.frame:has(.report) > :not(main)) {
      display: none !important;
    }

    :global(.frame:has(.report) > main) {
      overflow: visible !important;
    }
  }
</style>
