<script lang="ts">
  import type { Note } from '$core/notes/note.js';
  import Act from './Act.svelte';
  import { edit } from './acts.js';

  /** Margin notes: what is missing, weak or doubled, each with the act that mends it. */
  const { botId, notes, go }: { botId: number; notes: readonly Note[]; go?: (note: Note) => void } = $props();

  /** Remarks that are shown at first. */
  const SHOWN = 12;

  let all = $state(false);
</script>

<ul class="notes">
  {#each all ? notes : notes.slice(0, SHOWN) as note, index (index)}
    <li class={note.weight}>
      <span aria-hidden="true">{note.weight === 'missing' ? '✕' : '┄'}</span>
      <div>
        <span class="unseen">{note.weight === 'missing' ? 'Missing: ' : 'Weak: '}</span>{note.text}
        {#if note.mend || (go && note.place.utterance !== undefined)}
          <span class="acts">
            {#if note.mend}
              {@const { words, act } = note.mend}
              <Act look="firm" onclick={() => void edit(botId, act, `Done: ${words}.`)}>{words}</Act>
            {/if}
            {#if go && note.place.utterance !== undefined}<Act onclick={() => go(note)}>Show</Act>{/if}
          </span>
        {/if}
      </div>
    </li>
  {/each}
</ul>
{#if notes.length > SHOWN && !all}
  <Act onclick={() => (all = true)}>Show {notes.length - SHOWN} more</Act>
{/if}

<style>
  li {
    display: grid;
    grid-template-columns: 1rem 1fr;
    gap: 0.15rem;
    padding: 0.3rem 0;
    align-items: start;
  }

  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem;
    padding-top: 0.2rem;
  }

  .missing > span:first-child {
    color: var(--none);
  }

  .weak > span:first-child {
    color: var(--asked);
  }
</style>
