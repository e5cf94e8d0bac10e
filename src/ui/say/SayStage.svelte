<script lang="ts">
  import { goto } from '$app/navigation';
  import type { SayView } from '$core/contract/say.js';
  import { edit } from '../shared/acts.js';
  import Notes from '../shared/Notes.svelte';
  import FirstSteps from '../shared/FirstSteps.svelte';
  import SampleButton from '../shared/SampleButton.svelte';
  import { SAMPLES } from '../shared/samples.js';
  import FormSheet from './FormSheet.svelte';
  import ReadThrough from './ReadThrough.svelte';
  import SayList from './SayList.svelte';
  import Act from '../shared/Act.svelte';

  const { botId, view }: { botId: number; view: SayView } = $props();

  let naming = $state(false);

  async function create(name: string): Promise<boolean> {
    const done = await edit(botId, { do: 'addForm', name });
    if (done) await goto(`/bots/${botId}/say?form=${encodeURIComponent(name)}`);
    return done;
  }
</script>

<div class="stage">
  <SayList {botId} list={view} current={view.current?.form.name ?? null} bind:naming {create} />
  <section class="work" aria-label="Form">
    {#if view.current}
      {#key view.current.form.name}
        <FormSheet {botId} form={view.current.form} notes={view.current.notes} openedBy={view.current.intents} {view} />
      {/key}
    {:else}
      <div class="empty">
        <h1>No forms yet</h1>
        <p>A form is a set of slots to fill: what the bot must know before it can take an order.</p>
        <p class="both">
          <Act look="main" onclick={() => (naming = true)}>Make the first form</Act>
          <SampleButton {botId} sample={SAMPLES.form} />
        </p>
      </div>
    {/if}
  </section>
  <aside class="margin" aria-label="Margin">
    <FirstSteps {botId} />
    {#if view.current}
      <h2>Margin</h2>
      {#if view.current.notes.length === 0}<p class="soft">Nothing is missing.</p>{/if}
      <Notes {botId} notes={view.current.notes} />
      <ReadThrough
        lines={view.current.readThrough}
        stale={view.current.stale}
        opened={view.current.intents.length > 0}
      />
    {/if}
  </aside>
</div>
