<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import type { TeachView } from '$core/contract/teach.js';
  import { edit } from '../shared/acts.js';
  import NameDialog from '../shared/NameDialog.svelte';
  import IntentHead from './IntentHead.svelte';
  import IntentMargin from './IntentMargin.svelte';
  import TeachList from './TeachList.svelte';
  import { SheetSelection } from './selection.svelte.js';
  import UtteranceSheet from './UtteranceSheet.svelte';

  const { botId, view }: { botId: number; view: TeachView } = $props();

  const selection = new SheetSelection();
  let naming = $state(false);

  $effect(() => {
    if (page.url.searchParams.has('new')) naming = true;
  });

  // Another intent is another sheet: nothing stays selected.
  let shown: string | undefined;
  $effect(() => {
    const name = view.current?.name;
    if (name !== shown) selection.clear();
    shown = name;
  });

  async function create(name: string): Promise<boolean> {
    const done = await edit(botId, { do: 'addIntent', name });
    if (done) await goto(`/bots/${botId}/teach?intent=${encodeURIComponent(name)}`);
    return done;
  }
</script>

<div class="stage">
  <div class="list"><TeachList {botId} {view} create={() => (naming = true)} /></div>
  <section class="work" aria-label="Utterances">
    {#if view.current}
      {#key view.current.name}<IntentHead {botId} intent={view.current} {view} />{/key}
      <UtteranceSheet {botId} intent={view.current} intents={view.intents.map((intent) => intent.name)} {selection} />
    {:else}
      <div class="empty">
        <h1>No intents yet</h1>
        <p>An intent is what a customer wants in one turn: to order, to ask for a price, to cancel.</p>
        <p><button class="solid" onclick={() => (naming = true)}>Make the first intent</button></p>
      </div>
    {/if}
  </section>
  <aside class="margin" aria-label="Margin">
    {#if view.current}<IntentMargin {botId} intent={view.current} {selection} />{/if}
  </aside>
</div>
<NameDialog
  bind:open={naming}
  heading="New intent"
  label="Name"
  action="Make the intent"
  hint="What the customer wants, such as order_plants."
  submit={create}
/>

<style>
  .work {
    display: grid;
    grid-template-rows: auto minmax(0, 1fr);
    overflow: hidden;
  }

  .empty {
    padding: 3rem;
    display: grid;
    gap: 0.75rem;
    align-content: start;
  }
</style>
