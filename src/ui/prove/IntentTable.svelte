<script lang="ts">
  import type { ClassMeasure } from '$core/measure/classification.js';
  import Bar from '../shared/Bar.svelte';
  import { share } from '../shared/format.js';

  const { intents }: { intents: ClassMeasure[] } = $props();

  const worstFirst = $derived([...intents].sort((a, b) => (a.f1 ?? 2) - (b.f1 ?? 2)));
</script>

<table class="sheet" aria-label="Intents, the worst first">
  <thead>
    <tr>
      <th scope="col">Intent</th>
      <th scope="col" class="number">Lines</th>
      <th scope="col" class="number">Precision</th>
      <th scope="col" class="number">Recall</th>
      <th scope="col" class="number">F1</th>
      <th scope="col"><span class="unseen">F1 as a bar</span></th>
    </tr>
  </thead>
  <tbody>
    {#each worstFirst as intent (intent.intent)}
      <tr>
        <td>{intent.intent}</td>
        <td class="number">{intent.support}</td>
        <td class="number">{share(intent.precision)}</td>
        <td class="number">{share(intent.recall)}</td>
        <td class="number">{share(intent.f1)}</td>
        <td><Bar value={intent.f1} tone={(intent.f1 ?? 1) < 0.7 ? 'none' : 'reed'} /></td>
      </tr>
    {/each}
  </tbody>
</table>
