<script lang="ts">
  import { goto } from '$app/navigation';
  import { ENTITY_KINDS, type EntityKind } from '$core/bot/document.js';
  import type { EntityChange } from '$core/bot/acts/index.js';
  import type { EntitySheet } from '$core/contract/teach.js';
  import { edit, keepEdit } from '../shared/acts.js';
  import Cell from '../shared/Cell.svelte';
  import Choice from '../shared/Choice.svelte';
  import { Modal } from 'carbon-components-svelte';
  import Field from '../shared/Field.svelte';
  import { counted } from '../shared/format.js';
  import Tick from '../shared/Tick.svelte';
  import ValueSheet from './ValueSheet.svelte';
  import Act from '../shared/Act.svelte';

  const { botId, entity, usedBy }: { botId: number; entity: EntitySheet; usedBy: string[] } = $props();

  const change = (to: EntityChange) => edit(botId, { do: 'changeEntity', name: entity.name, to });

  async function rename(text: string): Promise<true | string> {
    const name = text.trim();
    const done = await keepEdit(botId, { do: 'changeEntity', name: entity.name, to: { name } });
    if (done === true) await goto(`/bots/${botId}/teach/entities?entity=${encodeURIComponent(name)}`);
    return done;
  }

  /** Another kind may have no use for what was written; that is asked about first. */
  let kindWanted = $state<EntityKind | null>(null);

  const losing = $derived(
    entity.kind === 'list' && entity.count > 0
      ? counted(entity.count, 'value')
      : entity.kind === 'pattern' && (entity.pattern ?? '') !== ''
        ? 'the pattern'
        : null,
  );

  async function setKind(kind: EntityKind): Promise<boolean> {
    if (losing === null || kind === entity.kind) return change({ kind });
    kindWanted = kind;
    return false;
  }

  async function loseAndChange() {
    const kind = kindWanted;
    kindWanted = null;
    if (kind)
      await edit(botId, { do: 'changeEntity', name: entity.name, to: { kind } }, `${entity.name} is now ${kind}.`);
  }

  async function remove() {
    await edit(botId, { do: 'deleteEntity', name: entity.name }, `Deleted ${entity.name}.`);
  }
</script>

<header>
  <h1 class="unseen">{entity.name}</h1>
  <span class="name"><Cell look="title" label="Name of the entity" value={entity.name} keep={rename} /></span>
  <Choice
    label="Kind"
    showLabel
    value={entity.kind}
    options={ENTITY_KINDS}
    keep={(kind) => setKind(kind as EntityKind)}
  />
  {#if entity.kind === 'list'}
    <Tick
      label="also when misspelt"
      checked={entity.misspellings ?? false}
      keep={(misspellings) => change({ misspellings })}
    />
  {/if}
  <span class="acts">
    <Act
      icon="delete"
      look="grave"
      disabled={usedBy.length > 0}
      label={usedBy.length > 0
        ? `${entity.name} fills slots of ${usedBy.join(', ')}`
        : `Delete the entity ${entity.name}`}
      onclick={remove}
    />
  </span>
</header>
<Modal
  open={kindWanted !== null}
  danger
  size="xs"
  modalHeading="Change the kind?"
  primaryButtonText="Change it and lose {losing ?? ''}"
  secondaryButtonText="Keep it as it is"
  on:click:button--secondary={() => (kindWanted = null)}
  on:close={() => (kindWanted = null)}
  on:submit={loseAndChange}
>
  <p>As {kindWanted} {entity.name} would lose {losing}.</p>
</Modal>

{#if entity.kind === 'list'}
  <ValueSheet {botId} {entity} />
{:else if entity.kind === 'pattern'}
  <div class="body">
    <Field
      label="Pattern"
      figure
      value={entity.pattern ?? ''}
      keep={(pattern) => keepEdit(botId, { do: 'changeEntity', name: entity.name, to: { pattern } })}
      hint={'A regular expression for the whole value, in capitals or not: AB-\\d{4} finds AB-1234 and ab-1234.'}
    />
  </div>
{:else if entity.kind === 'free'}
  <p class="body soft">Free words: taken as they stand when the bot asks for them.</p>
{:else}
  <p class="body soft">Built in: the bot knows how a {entity.kind} is said, and there is nothing to list.</p>
{/if}

<style>
  header {
    display: flex;
    align-items: center;
    gap: 1rem;
    padding: 0.6rem 0.75rem;
    border-bottom: 1px solid var(--line);
  }

  .name {
    min-width: 0;
  }

  .acts {
    margin-left: auto;
  }

  .body {
    padding: 0.75rem;
  }
</style>
