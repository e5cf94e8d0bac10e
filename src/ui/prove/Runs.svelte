<script lang="ts">
  import type { RunSummary } from '$core/contract/prove.js';
  import { moment, percent } from '../shared/format.js';
  import Trend from './Trend.svelte';

  /** All runs of a test set: their figures as a trend and as a table, any two of which can be compared. */
  const {
    path,
    runs,
    shown,
    against,
  }: {
    /** Of the screen, with the test set. */
    path: string;
    runs: RunSummary[];
    shown: number | null;
    against: number | null;
  } = $props();

  const exact = (figure: number | null) => (figure === null ? '–' : `${(figure * 100).toFixed(1)} %`);
  const bounds = ({ interval }: RunSummary) =>
    interval === null ? '' : `${(interval.low * 100).toFixed(0)} to ${(interval.high * 100).toFixed(0)} %`;
</script>

<section aria-label="Runs">
  {#if runs.length > 1}<Trend {runs} />{/if}
  <table class="sheet">
    <thead>
      <tr>
        <th scope="col">Run</th>
        <th scope="col">Change</th>
        <th scope="col">Read by</th>
        <th scope="col" class="number">Lines</th>
        <th scope="col" class="number">Accuracy</th>
        <th scope="col" class="number">On other lines like these</th>
        <th scope="col" class="number">Macro F1</th>
        <th scope="col" class="number">Accepted</th>
        <th scope="col" class="number">Right when accepted</th>
        <th scope="col">Look at</th>
      </tr>
    </thead>
    <tbody>
      {#each runs as run (run.id)}
        <tr aria-current={run.id === shown ? 'true' : undefined}>
          <th scope="row">{moment(run.ranAt)}</th>
          <td
            ><span class="figure">{run.revision}</span>{#if run.state !== null}, {run.state}{/if}</td
          >
          <td class="soft">{run.reader ?? 'not kept'}</td>
          <td class="number">{run.lines}</td>
          <td class="number">{exact(run.accuracy)}</td>
          <td class="number soft">{bounds(run)}</td>
          <td class="number">{run.macroF1?.toFixed(3) ?? '–'}</td>
          <td class="number">{percent(run.accepted)}</td>
          <td class="number">{exact(run.rightWhenAccepted)}</td>
          <td>
            <a href="{path}&run={run.id}">{run.id === shown ? 'shown' : 'its lines'}</a>
            {#if run.id !== shown && shown !== null}
              · <a href="{path}&run={shown}&against={run.id}">{run.id === against ? 'compared with' : 'compare'}</a>
            {/if}
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
</section>

<style>
  [aria-current] th {
    font-weight: 600;
  }
</style>
