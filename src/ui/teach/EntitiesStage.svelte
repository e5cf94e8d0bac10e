<script lang="ts">
  import { goto } from '$app/navigation';
  import type { EntitiesView } from '$core/contract/teach.js';
  import { edit } from '../shared/acts.js';
  import EntitySheet from './EntitySheet.svelte';
  import Act from '../shared/Act.svelte';
  import FirstSteps from '../shared/FirstSteps.svelte';
  import SampleButton from '../shared/SampleButton.svelte';
  import { SAMPLES } from '../shared/samples.js';
  import ListHead from '../shared/ListHead.svelte';

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
    <ListHead
      heading="Entities"
      count={view.entities.length}
      kind="entity"
      placeholder="A kind of value"
      bind:naming
      {create}
    />
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
  <section class="work" aria-label="Entity">
    {#if view.current}
      {#key view.current.name}<EntitySheet {botId} entity={view.current} usedBy={view.usedBy} />{/key}
    {:else}
      <div class="empty">
        <h1>No entities yet</h1>
        <p>An entity is a kind of value that customers mention: a size, a colour, the number of an order.</p>
        <p class="both">
          <Act look="main" onclick={() => (naming = true)}>Make the first entity</Act>
          <SampleButton {botId} sample={SAMPLES.entity} />
        </p>
      </div>
    {/if}
  </section>
  <aside class="margin" aria-label="Margin">
    <FirstSteps {botId} />
    <h2>Margin</h2>
    {#if view.current}
      {#if view.usedBy.length > 0}
        <p>Fills slots of {view.usedBy.join(', ')}.</p>
      {:else}
        <p class="soft">No form asks for it. Words can still be marked with it.</p>
      {/if}
      {#if view.current.kind === 'list' && view.current.count === 0}
        <p>It has no values yet: paste them into the last row, a line for each.</p>
      {/if}
    {/if}
  </aside>
</div>

<style>
  .margin p {
    margin-top: 0.4rem;
  }

  .work {
    display: grid;
    grid-template-rows: auto minmax(0, 1fr);
    overflow: hidden;
  }
</style>
