<script lang="ts">
  import { goto } from '$app/navigation';
  import type { SayView } from '$core/contract/say.js';
  import { edit } from '../shared/acts.js';
  import NameDialog from '../shared/NameDialog.svelte';
  import Notes from '../shared/Notes.svelte';
  import BotTexts from './BotTexts.svelte';
  import FormSheet from './FormSheet.svelte';
  import ReadThrough from './ReadThrough.svelte';

  const { botId, view }: { botId: number; view: SayView } = $props();

  let naming = $state(false);

  const pathOf = (name: string) => `/bots/${botId}/say?form=${encodeURIComponent(name)}`;

  async function create(name: string): Promise<boolean> {
    const done = await edit(botId, { do: 'addForm', name });
    if (done) await goto(pathOf(name));
    return done;
  }
</script>

<div class="stage">
  <div class="list">
    <div class="head">
      <h2>Forms <span class="soft figure">{view.forms.length}</span></h2>
      <button class="quiet firm" onclick={() => (naming = true)}>New</button>
    </div>
    <nav aria-label="Forms">
      {#each view.forms as form (form.name)}
        <a
          class="entry"
          href={pathOf(form.name)}
          aria-current={form.name === view.current?.form.name ? 'true' : undefined}
        >
          <span class="name">{form.name}</span>
          {#if form.missing}<span class="missing">missing</span>{:else}<span class="figure soft">{form.slots}</span
            >{/if}
        </a>
      {/each}
    </nav>
    <div class="head always"><h2>Whole bot</h2></div>
    <div class="head"><a href="#no-match">No match, greeting, desks</a></div>
  </div>
  <section class="work" aria-label="Form">
    {#if view.current}
      {#key view.current.form.name}
        {#key view.current.form.name}
          <FormSheet
            {botId}
            form={view.current.form}
            notes={view.current.notes}
            openedBy={view.current.intents}
            {view}
          />
        {/key}
      {/key}
    {:else}
      <div class="empty">
        <h1>No forms yet</h1>
        <p>A form is a set of slots to fill: what the bot must know before it can take an order.</p>
        <p><button class="solid" onclick={() => (naming = true)}>Make the first form</button></p>
      </div>
    {/if}
    <BotTexts {botId} {view} />
  </section>
  <aside class="margin" aria-label="Margin">
    {#if view.current}
      <h2>Margin</h2>
      {#if view.current.notes.length === 0}<p class="soft">Nothing is missing.</p>{/if}
      <Notes notes={view.current.notes} />
      <ReadThrough
        lines={view.current.readThrough}
        stale={view.current.stale}
        opened={view.current.intents.length > 0}
      />
    {/if}
  </aside>
</div>
<NameDialog
  bind:open={naming}
  heading="New form"
  label="Name"
  action="Make the form"
  hint="What it takes in, such as plant_order."
  submit={create}
/>

<style>
  .always {
    margin-top: 1rem;
  }

  .missing {
    color: var(--none);
    font-size: 0.75rem;
  }

  .empty {
    padding: 3rem;
    display: grid;
    gap: 0.75rem;
  }
</style>
