<script lang="ts">
  import type { GateFigures } from '$core/measure/gateFigures.js';
  import { shareInterval } from '$core/measure/interval.js';
  import type { Consequence } from '$core/measure/levels.js';
  import OutcomeMark from '../shared/OutcomeMark.svelte';

  /** What the levels come to, of 100 messages like those they are set by. */
  const { figures, readsBack }: { figures: GateFigures; readsBack: boolean } = $props();

  const ROWS: readonly [consequence: Consequence, decision: 'accept' | 'ask' | 'none', words: string][] = [
    ['accepted rightly', 'accept', 'accepted rightly'],
    ['accepted wrongly', 'accept', 'accepted as what they are not'],
    ['accepted out of scope', 'accept', 'accepted, though out of scope'],
    ['form opened wrongly', 'accept', 'a form opened that was not wanted, read back first'],
    ['form opened out of scope', 'accept', 'a form opened, though out of scope, read back first'],
    ['asked, right one offered', 'ask', 'asked about, the right intent offered'],
    ['asked, right one not offered', 'ask', 'asked about, the right intent not offered'],
    ['asked out of scope', 'ask', 'asked about, though out of scope'],
    ['missed', 'none', 'not matched, though in scope'],
    ['left out of scope', 'none', 'rightly not matched'],
  ];

  const rows = $derived(ROWS.filter(([consequence]) => readsBack || !consequence.startsWith('form')));

  const of = (consequence: Consequence): string =>
    ((figures.consequences[consequence] / Math.max(1, figures.messages)) * 100).toFixed(0);
  const sum = (...all: Consequence[]) =>
    ((all.reduce((total, one) => total + figures.consequences[one], 0) / Math.max(1, figures.messages)) * 100).toFixed(
      0,
    );

  function bounds(consequence: Consequence): string {
    const interval = shareInterval(figures.consequences[consequence], figures.messages);
    return interval ? `${(interval.low * 100).toFixed(0)}–${(interval.high * 100).toFixed(0)}` : '–';
  }
</script>

<section aria-label="What the levels come to">
  <p class="sentence" aria-live="polite">
    Of 100 messages like these: <strong>{of('accepted rightly')}</strong> accepted rightly,
    <strong>{sum('accepted wrongly', 'accepted out of scope')}</strong> wrongly{#if readsBack}, and
      {sum('form opened wrongly', 'form opened out of scope')} with a wrong form that is read back first{/if};
    <strong>{sum('asked, right one offered', 'asked, right one not offered', 'asked out of scope')}</strong> asked
    about, of which {of('asked, right one offered')} are offered the right intent;
    <strong>{sum('missed', 'left out of scope')}</strong> not matched, of which {of('missed')} could have been served.
  </p>
  <table>
    <thead>
      <tr><th scope="col">outcome</th><th scope="col">lines</th><th scope="col">of 100</th><th scope="col">95 %</th></tr
      >
    </thead>
    <tbody>
      {#each rows as [consequence, decision, words] (consequence)}
        <tr data-consequence={consequence}>
          <th scope="row"><OutcomeMark {decision} /> {words}</th>
          <td class="figure">{figures.consequences[consequence]}</td>
          <td class="figure">{of(consequence)}</td>
          <td class="figure soft">{bounds(consequence)}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</section>

<style>
  .sentence {
    margin-bottom: 0.5rem;
    max-width: 60rem;
  }

  table {
    border-collapse: collapse;
  }

  th {
    padding: 0.1rem 0.5rem 0.1rem 0;
    font-weight: 400;
    text-align: left;
  }

  thead th {
    font-size: 0.75rem;
    color: var(--ink-soft);
  }

  td,
  thead th:not(:first-child) {
    padding-left: 1rem;
    text-align: right;
  }

  tr {
    border-bottom: 1px solid var(--line);
  }
</style>
