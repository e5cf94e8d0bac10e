<script lang="ts">
  import { goto } from '$app/navigation';
  import type { EntitiesView } from '$core/contract/teach.js';
  import { edit } from '../shared/acts.js';
  import NameDialog from '../shared/NameDialog.svelte';
  import EntitySheet from './EntitySheet.svelte';

  const { botId, view }: { botId: number; view: EntitiesView } = $props();

  let naming = $state(false);

  const pathOf = (name: string) => `/bots/${botId}/teach/entities?entity=${encodeURIComponent(name)}`;

  async function create(name: string): Promise<boolean> {
    const done = await edit(botId, { do: 'addEntity', name, kind: 'list', misspellings: true });
    if (done) await goto(pathOf(name));
    return done;
  }
</script>

<div class="stage">
  <div class="list">
    <div class="head"><a href="/bots/{botId}/teach">‹ Intents</a></div>
    <div class="head">
      <h2>Entities <span class="soft figure">{view.entities.length}</span></h2>
      <button class="quiet firm" onclick={() => (naming = true)}>New</button>
    </div>
    <nav aria-label="Entities">
      {#each view.entities as entity (entity.name)}
        <a
          class="entry"
          href={pathOf(entity.name)}
          aria-current={entity.name === view.current?.name ? 'true' : undefined}
        >
          <span class="name">{entity.name}</span>
          <span class="soft">{entity.values ?? entity.kind}</span>
        </a>
      {/each}
    </nav>
  </div>
  <section aria-label="Entity">
    {#if view.current}
      {#key view.current.name}<EntitySheet {botId} entity={view.current} usedBy={view.usedBy} />{/key}
    {:else}
      <div class="empty">
        <h1>No entities yet</h1>
        <p>An entity is a kind of value that customers mention: a plant, a size, an order number.</p>
        <p><button class="solid" onclick={() => (naming = true)}>Make the first entity</button></p>
      </div>
    {/if}
  </section>
  <aside class="margin" aria-label="Margin">
    <h2>Margin</h2>
    {#if view.current}
      {#if view.usedBy.length > 0}
        <p>Fills slots of {view.usedBy.join(', ')}.</p>
      {:else}
        <p class="soft">No form asks for it. Words can still be marked with it.</p>
      {/if}
      {#if view.current.kind === 'list' && (view.current.values ?? []).length === 0}
        <p>It has no values yet: paste them into the last row, a line for each.</p>
      {/if}
    {/if}
  </aside>
</div>
<NameDialog
  bind:open={naming}
  heading="New entity"
  label="Name"
  action="Make the entity"
  hint="A kind of value, such as plant or size."
  submit={create}
/>

<style>
  .margin p {
    margin-top: 0.4rem;
  }

  .empty {
    padding: 3rem;
    display: grid;
    gap: 0.75rem;
  }
</style>
