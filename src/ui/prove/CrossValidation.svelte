<script lang="ts">
  import type { CrossValidation } from '$core/measure/crossValidation.js';
  import Bar from '../shared/Bar.svelte';
  import { counted, percent, share } from '../shared/format.js';

  const { botId, result }: { botId: number; result: CrossValidation } = $props();

  const POOR = 0.7;
  const worstFirst = $derived([...result.intents].sort((a, b) => (a.f1 ?? 2) - (b.f1 ?? 2)));
  const teach = (intent: string) => `/bots/${botId}/teach?intent=${encodeURIComponent(intent)}`;
</script>

<p class="sentence">
  {#if result.accuracy}
    Of 100 utterances <strong>{(result.accuracy.figure * 100).toFixed(1)}</strong> are read rightly by a model that was
    not taught them; of others like these between {(result.accuracy.low * 100).toFixed(1)} and
    {(result.accuracy.high * 100).toFixed(1)} would be.
  {/if}
  {counted(result.utterances, 'utterance')} in {result.folds} folds, {counted(
    result.repeats,
    'repeat',
  )}{#if result.repeats > 1}, from {percent(result.lowest)} to {percent(result.highest)} each{/if}.
  {#if result.doubled > 0}{counted(result.doubled, 'line')} that stand twice are left out.{/if}
</p>
<div class="both">
  <section aria-label="Intents, the worst first">
    <table class="sheet">
      <thead>
        <tr>
          <th scope="col">intent</th>
          <th scope="col" class="number">utterances</th>
          <th scope="col" class="number">precision</th>
          <th scope="col" class="number">recall</th>
          <th scope="col" class="number">of its repeats</th>
          <th scope="col" class="number">F1</th>
          <th scope="col"><span class="unseen">F1 as a bar</span></th>
        </tr>
      </thead>
      <tbody>
        {#each worstFirst as intent (intent.intent)}
          <tr>
            <th scope="row"><a href={teach(intent.intent)}>{intent.intent}</a></th>
            <td class="number">{intent.utterances}</td>
            <td class="number">{share(intent.precision)}</td>
            <td class="number">{share(intent.recall)}</td>
            <td class="number soft">{share(intent.lowest)}–{share(intent.highest)}</td>
            <td class="number">{share(intent.f1)}</td>
            <td><Bar value={intent.f1} tone={intent.f1 !== null && intent.f1 < POOR ? 'none' : 'reed'} /></td>
          </tr>
        {/each}
      </tbody>
    </table>
  </section>
  <section>
    <h2>Taken for each other</h2>
    <ul>
      {#each result.confused as { intent, predicted, share: part } (`${intent} ${predicted}`)}
        <li>
          <span class="figure">{percent(part)}</span> of <a href={teach(intent)}>{intent}</a> as
          <a href={teach(predicted)}>{predicted}</a>
        </li>
      {:else}
        <li class="soft">No intent is taken for another.</li>
      {/each}
    </ul>
    <h2>The hardest utterances</h2>
    <ul>
      {#each result.hardest as { text, intent, predicted, wrong } (`${intent} ${text}`)}
        <li>
          <span class="figure">{wrong} of {result.repeats}</span>
          <span class="customer">{text}</span>
          <span class="soft">{intent}, read as {predicted ?? 'nothing'}</span>
        </li>
      {/each}
    </ul>
  </section>
</div>

<style>
  .sentence {
    max-width: 60rem;
    margin-bottom: 0.5rem;
  }

  .both {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 1.5rem;
    align-items: start;
  }

  li {
    padding-block: 0.1rem;
    border-bottom: 1px solid var(--line);
  }

  ul {
    margin-bottom: 0.75rem;
  }
</style>
