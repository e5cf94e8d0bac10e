<script lang="ts">
  import { goto } from '$app/navigation';
  import { ENTITY_KINDS, type Entity, type EntityKind, type ListValue } from '$core/bot/document.js';
  import type { EntityChange, ValueChange } from '$core/bot/acts/index.js';
  import { joinParts, listLines, splitParts } from '$core/bot/pasted.js';
  import { edit, keepEdit } from '../shared/acts.js';
  import Cell from '../shared/Cell.svelte';
  import Choice from '../shared/Choice.svelte';
  import { counted } from '../shared/format.js';
  import NameDialog from '../shared/NameDialog.svelte';

  const { botId, entity, usedBy }: { botId: number; entity: Entity; usedBy: string[] } = $props();

  let renaming = $state(false);
  let added = $state('');

  const values = $derived(entity.values ?? []);
  const change = (to: EntityChange) => edit(botId, { do: 'changeEntity', name: entity.name, to });

  async function rename(name: string): Promise<boolean> {
    const done = name === entity.name || (await change({ name }));
    if (done) await goto(`/bots/${botId}/teach/entities?entity=${encodeURIComponent(name)}`);
    return done;
  }

  /** Adds a value a line. The field is emptied at once, so that typing on loses nothing. */
  async function add(text: string) {
    const rows = listLines(text).flatMap((line) => {
      const [value, ...synonyms] = splitParts(line);
      return value === undefined ? [] : [{ value, synonyms }];
    });
    added = '';
    if (rows.length === 0) return;
    const said = rows.length > 1 ? `Added ${counted(rows.length, 'value')}.` : undefined;
    if (await edit(botId, { do: 'addValues', entity: entity.name, values: rows }, said)) return;
    added = added === '' ? text : `${text}, ${added}`;
  }

  /** Another kind may have no use for what was written; that is asked about first. */
  let kindWanted = $state<EntityKind | null>(null);

  const losing = $derived(
    entity.kind === 'list' && values.length > 0
      ? counted(values.length, 'value')
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

  const changeValue = ({ id }: ListValue, to: ValueChange) => keepEdit(botId, { do: 'changeValue', id, to });

  const removeValue = ({ id, value }: ListValue) =>
    edit(botId, { do: 'deleteValues', ids: [id] }, `Deleted “${value}”.`);

  /** An emptied row is a deleted one. */
  const setValue = (item: ListValue, to: string) =>
    to.trim() === '' ? removeValue(item) : changeValue(item, { value: to });

  async function remove() {
    await edit(botId, { do: 'deleteEntity', name: entity.name }, `Deleted ${entity.name}.`);
  }

  function pasted(event: ClipboardEvent) {
    const text = event.clipboardData?.getData('text/plain') ?? '';
    if (!text.trim().includes('\n')) return;
    event.preventDefault();
    void add(text);
  }
</script>

<header>
  <h1>{entity.name}</h1>
  <label>
    <span class="soft">Kind</span>
    <Choice value={entity.kind} keep={(kind) => setKind(kind as EntityKind)}>
      {#each ENTITY_KINDS as kind (kind)}<option value={kind}>{kind}</option>{/each}
    </Choice>
  </label>
  {#if entity.kind === 'list'}
    <label>
      <input
        type="checkbox"
        checked={entity.misspellings ?? false}
        onchange={async (event) => {
          const box = event.currentTarget;
          if (!(await change({ misspellings: box.checked }))) box.checked = entity.misspellings ?? false;
        }}
      />
      also when misspelt
    </label>
  {/if}
  <span class="acts">
    <button class="quiet" onclick={() => (renaming = true)}>Rename</button>
    <button
      class="quiet danger"
      disabled={usedBy.length > 0}
      title={usedBy.length > 0 ? `It fills slots of ${usedBy.join(', ')}` : ''}
      onclick={remove}>Delete</button
    >
  </span>
</header>
{#if kindWanted !== null}
  <div class="ask" role="alertdialog" aria-label="Change the kind">
    <span>As {kindWanted} it would lose {losing}.</span>
    <button class="quiet danger" onclick={loseAndChange}>Change it and lose {losing}</button>
    <button class="quiet firm" onclick={() => (kindWanted = null)}>Keep it as it is</button>
  </div>
{/if}

{#if entity.kind === 'list'}
  <table class="sheet">
    <thead>
      <tr>
        <th scope="col" class="value">Value</th>
        <th scope="col">Also said as, parted by commas</th>
        <th scope="col"><span class="unseen">Acts</span></th>
      </tr>
    </thead>
    <tbody>
      {#each values as item, index (item.id)}
        <tr>
          <td>
            <Cell look="customer" value={item.value} label="Value {index + 1}" keep={(text) => setValue(item, text)} />
          </td>
          <td>
            <Cell
              look="customer"
              value={joinParts(item.synonyms)}
              label="Synonyms of {item.value}"
              keep={(text) => changeValue(item, { synonyms: splitParts(text) })}
            />
          </td>
          <td
            ><button class="quiet danger" aria-label="Delete {item.value}" onclick={() => removeValue(item)}
              >Delete</button
            ></td
          >
        </tr>
      {/each}
      <tr>
        <td colspan="3">
          <form
            onsubmit={(event) => {
              event.preventDefault();
              void add(added);
            }}
          >
            <input
              class="cell customer new"
              bind:value={added}
              onpaste={pasted}
              aria-label="New value"
              placeholder="A new value, with synonyms after commas (one with a comma in quotes); or paste many lines"
            />
            <button class="quiet firm" disabled={added.trim() === ''}>Add</button>
          </form>
        </td>
      </tr>
    </tbody>
  </table>
{:else if entity.kind === 'pattern'}
  <div class="body">
    <label class="pattern">
      Pattern
      <Cell look="figure" value={entity.pattern ?? ''} keep={(pattern) => change({ pattern })} spellcheck="false" />
    </label>
    <p class="soft">
      A regular expression for the whole value, in capitals or not: <code>AB-\d{'{4}'}</code> finds AB-1234 and ab-1234.
    </p>
  </div>
{:else if entity.kind === 'free'}
  <p class="body soft">Free words: taken as they stand when the bot asks for them.</p>
{:else}
  <p class="body soft">Built in: the bot knows how a {entity.kind} is said, and there is nothing to list.</p>
{/if}
<NameDialog
  bind:open={renaming}
  heading="Rename {entity.name}"
  label="Name"
  action="Rename"
  initial={entity.name}
  submit={rename}
/>

<style>
  header {
    display: flex;
    align-items: baseline;
    gap: 1rem;
    padding: 0.6rem 0.75rem;
    border-bottom: 1px solid var(--line);
  }

  header label {
    display: flex;
    gap: 0.35rem;
    align-items: baseline;
  }

  header :global(select) {
    width: auto;
    border-color: var(--line);
  }

  .acts {
    margin-left: auto;
  }

  .ask {
    display: flex;
    gap: 0.75rem;
    align-items: baseline;
    padding: 0.5rem 0.75rem;
    background: var(--none-wash);
  }

  .value {
    width: 14rem;
  }

  form {
    display: flex;
    gap: 0.5rem;
  }

  .new {
    border-color: var(--line-strong);
  }

  .body {
    padding: 0.75rem;
    display: grid;
    gap: 0.5rem;
  }

  .pattern {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0.5rem;
    align-items: baseline;
  }

  .pattern :global(input) {
    border-color: var(--line-strong);
  }
</style>
