<script lang="ts">
  import type { Evaluation } from '$core/measure/evaluate.js';
  import Bar from '../shared/Bar.svelte';
  import { share } from '../shared/format.js';

  /** The accuracy by how messages are written, and by where they come from. */
  const { evaluation }: { evaluation: Evaluation } = $props();

  const groups = $derived([
    ...evaluation.styles.map(({ style, ...rest }) => ({ tag: 'style', value: style, ...rest })),
    ...(evaluation.tags ?? []),
  ]);
</script>

{#if groups.length > 0}
  <table class="sheet">
    <thead>
      <tr>
        <th scope="col">by</th>
        <th scope="col">messages</th>
        <th scope="col" class="number">lines in scope</th>
        <th scope="col" class="number">right</th>
        <th scope="col"><span class="unseen">as a bar</span></th>
      </tr>
    </thead>
    <tbody>
      {#each groups as { tag, value, lines, accuracy } (`${tag} ${value}`)}
        <tr>
          <th scope="row">{tag}</th>
          <td>{value}</td>
          <td class="number">{lines}</td>
          <td class="number">{share(accuracy)}</td>
          <td><Bar value={accuracy} /></td>
        </tr>
      {/each}
    </tbody>
  </table>
{:else}
  <p class="soft">
    No line of the set tells its style, channel, source or language. They are written with <kbd>T</kbd> among its lines; a
    file may have a column for each.
  </p>
{/if}
