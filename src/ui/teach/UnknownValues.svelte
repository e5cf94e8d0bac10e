<script lang="ts">
  import type { UnknownValue } from '$core/bot/notes.js';
  import { edit } from '../shared/acts.js';

  /** Marked words that their list does not know, each with the act that adds them. */
  const { botId, unknown }: { botId: number; unknown: UnknownValue[] } = $props();

  const MOST = 6;

  const add = ({ entity, text }: UnknownValue) =>
    edit(botId, { do: 'addValues', entity, values: [{ value: text, synonyms: [] }] }, `Added “${text}” to ${entity}.`);
</script>

<ul>
  {#each unknown.slice(0, MOST) as item (`${item.row} ${item.text}`)}
    <li>
      <span>“<span class="customer">{item.text}</span>” is no value of {item.entity} (row {item.row + 1}).</span>
      <button class="quiet" onclick={() => add(item)}>Add it</button>
    </li>
  {/each}
</ul>
{#if unknown.length > MOST}<p class="soft">and {unknown.length - MOST} more</p>{/if}

<style>
  li {
    display: flex;
    gap: 0.35rem;
    align-items: baseline;
    padding: 0.2rem 0;
  }

  li span:first-child {
    flex: 1;
  }
</style>
