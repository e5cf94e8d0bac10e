<script lang="ts">
  import type { IntentSheet } from '$core/contract/teach.js';
  import Notes from '../shared/Notes.svelte';
  import MarkPanel from './MarkPanel.svelte';
  import type { SheetSelection } from './selection.svelte.js';
  import UnknownValues from './UnknownValues.svelte';

  const { botId, intent, selection }: { botId: number; intent: IntentSheet; selection: SheetSelection } = $props();

  const at = $derived(intent.rows.findIndex(({ id }) => id === selection.row));
  const row = $derived(Math.max(0, at));
  const line = $derived(intent.rows[row]);
</script>

{#if line}
  <MarkPanel {botId} {intent} {line} {row} {selection} />
{/if}
<section>
  <h2>Margin</h2>
  {#if intent.notes.length === 0 && intent.unknown.length === 0}
    <p class="soft">Nothing to remark.</p>
  {/if}
  <Notes
    notes={intent.notes}
    go={(note) => {
      if (note.row !== undefined) selection.row = intent.rows[note.row]?.id ?? null;
    }}
  />
  <UnknownValues {botId} unknown={intent.unknown} />
</section>

<style>
  section {
    margin-top: 1rem;
  }
</style>
