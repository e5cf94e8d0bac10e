<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { untrack } from 'svelte';
  import { UTTERANCES_PAGE, type TeachView, type UtteranceLine } from '$core/contract/teach.js';
  import { edit } from '../shared/acts.js';
  import { send } from '../shared/api.js';
  import FirstSteps from '../shared/FirstSteps.svelte';
  import SampleButton from '../shared/SampleButton.svelte';
  import { SAMPLES } from '../shared/samples.js';
  import IntentHead from './IntentHead.svelte';
  import IntentMargin from './IntentMargin.svelte';
  import TeachList from './TeachList.svelte';
  import { SheetRows } from '../shared/sheetRows.svelte.js';
  import { SheetSelection } from './selection.svelte.js';
  import UtteranceSheet from './UtteranceSheet.svelte';
  import Act from '../shared/Act.svelte';

  const { botId, view }: { botId: number; view: TeachView } = $props();

  const selection = new SheetSelection();
  const sheet = new SheetRows<UtteranceLine>(UTTERANCES_PAGE, (intent, from) =>
    send('GET', `/api/bots/${botId}/intents/${encodeURIComponent(intent)}/utterances?from=${from}`),
  );

  $effect.pre(() => {
    const { current } = view;
    if (current) untrack(() => sheet.take(current));
  });

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

  // Whoever comes for a row finds it shown.
  $effect(() => {
    const row = page.url.searchParams.get('row');
    if (row !== null) selection.row = row;
  });

  async function create(name: string): Promise<boolean> {
    const done = await edit(botId, { do: 'addIntent', name });
    if (done) await goto(`/bots/${botId}/teach?intent=${encodeURIComponent(name)}`);
    return done;
  }
</script>

<div class="stage">
  <div class="list"><TeachList {botId} {view} bind:naming {create} /></div>
  <section class="work" aria-label="Utterances">
    {#if view.current}
      {#key view.current.name}<IntentHead {botId} intent={view.current} {view} />{/key}
      <UtteranceSheet
        {botId}
        intent={view.current}
        intents={view.intents.map((intent) => intent.name)}
        {sheet}
        {selection}
      />
    {:else}
      <div class="empty">
        <h1>No intents yet</h1>
        <p>An intent is what a customer wants in one turn: to order, to ask for a price, to cancel.</p>
        <p class="both">
          <Act look="main" onclick={() => (naming = true)}>Make the first intent</Act>
          <SampleButton {botId} sample={SAMPLES.intent} />
        </p>
      </div>
    {/if}
  </section>
  <aside class="margin" aria-label="Margin">
    <FirstSteps {botId} />
    {#if view.current}<IntentMargin {botId} intent={view.current} {sheet} {selection} />{/if}
  </aside>
</div>

<style>
  .work {
    display: grid;
    grid-template-rows: auto minmax(0, 1fr);
    overflow: hidden;
  }
</style>
