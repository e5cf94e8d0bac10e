<script lang="ts">
  import type { Trial } from '$core/contract/trial.js';
  import Bar from '../shared/Bar.svelte';
  import { counted, percent, share } from '../shared/format.js';

  const { trial }: { trial: Trial<'noise'> } = $props();

  const { result } = $derived(trial);
  const points = (figure: number | null | undefined) =>
    figure === null || figure === undefined ? '–' : `${figure > 0 ? '+' : ''}${(figure * 100).toFixed(1)}`;
  const clean = $derived(result.trials[0]?.before ?? null);
</script>

<p class="sentence">
  {result.set.name}, {counted(result.lines, 'line')}: <strong>{percent(clean)}</strong> right as they stand. Each noise
  by itself, at {percent(trial.settings.strength)} of its strength:
</p>
<table class="sheet">
  <thead>
    <tr>
      <th scope="col">noise</th>
      <th scope="col" class="number">right with it</th>
      <th scope="col"><span class="unseen">as a bar</span></th>
      <th scope="col" class="number">points, with bounds</th>
      <th scope="col" class="number">sure and wrong</th>
      <th scope="col">falls most</th>
      <th scope="col">broken by it, for example</th>
    </tr>
  </thead>
  <tbody>
    {#each result.trials as { noise, means, after, change, sureAndWrong, worst, examples } (noise)}
      <tr data-noise={noise}>
        <th scope="row"><strong>{noise}</strong><br /><span class="soft">{means}</span></th>
        <td class="number">{share(after)}</td>
        <td><Bar value={after} /></td>
        <td class="number"
          >{points(change?.figure)}<br /><span class="soft">{points(change?.low)} to {points(change?.high)}</span></td
        >
        <td class="number">{sureAndWrong.before} → {sureAndWrong.after}</td>
        <td>
          {#each worst as { intent, before, after: then, lines } (intent)}
            <div>{intent ?? 'out of scope'} <span class="figure soft">{before} → {then} of {lines}</span></div>
          {/each}
        </td>
        <td>
          {#each examples.slice(0, 1) as { text, expected, predicted } (text)}
            <div class="customer">{text}</div>
            <div class="soft">{expected ?? 'out of scope'}, read as {predicted ?? 'nothing'}</div>
          {/each}
        </td>
      </tr>
    {/each}
  </tbody>
</table>

<style>
  .sentence {
    margin-bottom: 0.5rem;
  }

  th[scope='row'] {
    max-width: 14rem;
  }

  .number {
    white-space: nowrap;
  }

  .customer {
    display: -webkit-box;
    max-width: 24rem;
    overflow: hidden;
    -webkit-box-orient: vertical;
    -webkit-line-clamp: 2;
    line-clamp: 2;
  }
</style>
