<script lang="ts">
  import type { Note } from '$core/bot/note.js';

  /** Margin notes: what is missing, weak or doubled. */
  const { notes, go }: { notes: readonly Note[]; go?: (note: Note) => void } = $props();
</script>

<ul class="notes">
  {#each notes as note, index (index)}
    <li class={note.weight}>
      <span aria-hidden="true">{note.weight === 'missing' ? '✕' : '┄'}</span>
      <span><span class="unseen">{note.weight === 'missing' ? 'Missing: ' : 'Weak: '}</span>{note.text}</span>
      {#if go && (note.row !== undefined || note.slot !== undefined)}<button class="quiet" onclick={() => go(note)}
          >Show</button
        >{/if}
    </li>
  {/each}
</ul>

<style>
  li {
    display: grid;
    grid-template-columns: 1rem 1fr auto;
    gap: 0.15rem;
    padding: 0.3rem 0;
    align-items: start;
  }

  .missing > span:first-child {
    color: var(--none);
  }

  .weak > span:first-child {
    color: var(--asked);
  }
</style>
