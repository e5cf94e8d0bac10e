<script lang="ts">
  import type { IntentSheet, UtteranceLine } from '$core/contract/teach.js';
  import Notes from '../shared/Notes.svelte';
  import MarkPanel from './MarkPanel.svelte';
  import type { SheetRows } from '../shared/sheetRows.svelte.js';
  import type { SheetSelection } from './selection.svelte.js';

  const {
    botId,
    intent,
    sheet,
    selection,
  }: { botId: number; intent: IntentSheet; sheet: SheetRows<UtteranceLine>; selection: SheetSelection } = $props();

  const at = $derived(sheet.rows.findIndex(({ id }) => id === selection.row));
  const row = $derived(Math.max(0, at));
  const line = $derived(sheet.rows[row]?.line);
</script>

{#if line}
  <MarkPanel {botId} {intent} {line} {row} {selection} />
{/if}
<section>
  <h2>Margin</h2>
  {#if intent.notes.length === 0}
    <p class="soft">Nothing to remark.</p>
  {/if}
  <Notes {botId} notes={intent.notes} go={(note) => (selection.row = note.place.utterance ?? null)} />
</section>

<style>
  section {
    margin-top: 1rem;
  }
</style>
