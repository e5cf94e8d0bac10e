<script lang="ts">
  import ArrowDown from 'carbon-icons-svelte/lib/ArrowDown.svelte';
  import ArrowUp from 'carbon-icons-svelte/lib/ArrowUp.svelte';
  import TrashCan from 'carbon-icons-svelte/lib/TrashCan.svelte';
  import type { Entity, Form, Slot } from '$core/bot/document.js';
  import type { Insert } from '$core/bot/inserts.js';
  import type { SlotChange } from '$core/bot/acts/index.js';
  import { edit, keepEdit } from '../shared/acts.js';
  import Cell from '../shared/Cell.svelte';
  import Choice from '../shared/Choice.svelte';
  import ConditionRows from './ConditionRows.svelte';
  import TextLines from './TextLines.svelte';

  const {
    botId,
    form,
    slot,
    entities,
    lists,
    inserts,
    language,
    first,
    last,
    missing,
    move,
    remove,
  }: {
    botId: number;
    form: Form;
    slot: Slot;
    entities: string[];
    /** The bot's entities with their values, for conditions. */
    lists: Entity[];
    inserts: readonly Insert[];
    language: string;
    first: boolean;
    last: boolean;
    missing: boolean;
    move: (by: -1 | 1) => unknown;
    remove: () => unknown;
  } = $props();

  const act = (to: SlotChange) => ({ do: 'changeSlot' as const, slot: slot.id, to });
  const change = (to: SlotChange) => edit(botId, act(to));
  const rename = (to: string) => keepEdit(botId, { do: 'renameSlot', slot: slot.id, to });
  const entity = $derived(lists.find((item) => item.name === slot.entity));

  /** A default as it is typed: a figure for what is counted. */
  const setDefault = (text: string) => {
    const value = text.trim();
    const figure = value !== '' && Number.isFinite(Number(value)) && entity?.kind !== 'list';
    return keepEdit(botId, act({ default: value === '' ? null : figure ? Number(value) : value }));
  };
</script>

<tr data-slot={slot.name} class:missing>
  <td><Cell value={slot.name} label="Name of slot {slot.name}" keep={rename} /></td>
  <td>
    <Choice value={slot.entity} label="Entity of {slot.name}" keep={(name) => change({ entity: name })}>
      {#each entities as name (name)}<option value={name}>{name}</option>{/each}
    </Choice>
  </td>
  <td class="required">
    <input
      type="checkbox"
      checked={slot.required}
      aria-label="{slot.name} is required"
      onchange={async (event) => {
        const box = event.currentTarget;
        if (!(await change({ required: box.checked }))) box.checked = slot.required;
      }}
    />
  </td>
  <td>
    <ConditionRows {form} {slot} entities={lists} keep={(when) => change({ when })} />
    <details class="more">
      <summary
        >{slot.default === undefined ? 'More' : `else ${slot.default}`}<span class="unseen">
          on {slot.name}</span
        ></summary
      >
      <label>
        <span class="soft">holds</span>
        <Choice
          value={slot.several === undefined ? '' : slot.several ? 'several' : 'one'}
          label="How many values {slot.name} holds"
          keep={(value) => change({ several: value === '' ? null : value === 'several' })}
        >
          <option value="">as its kind has it</option>
          <option value="one">one value</option>
          <option value="several">several values</option>
        </Choice>
      </label>
      <label>
        <span class="soft">if they do not mind</span>
        <Cell value={String(slot.default ?? '')} placeholder="ask again" keep={setDefault} />
      </label>
    </details>
  </td>
  <td>
    <TextLines
      label="Prompts of {slot.name}"
      hideLabel
      text={slot.prompts}
      {language}
      placeholder={slot.required ? 'What is asked for it?' : 'Optional: asked only if it is required'}
      {inserts}
      keep={(prompts) => keepEdit(botId, act({ prompts: prompts ?? [] }))}
    />
  </td>
  <td class="acts">
    <button
      class="quiet"
      data-move="-1"
      disabled={first}
      aria-label="Move {slot.name} up"
      title="Up"
      onclick={() => move(-1)}><ArrowUp /></button
    >
    <button
      class="quiet"
      data-move="1"
      disabled={last}
      aria-label="Move {slot.name} down"
      title="Down"
      onclick={() => move(1)}><ArrowDown /></button
    >
    <button class="quiet danger" aria-label="Delete {slot.name}" title="Delete" onclick={remove}><TrashCan /></button>
  </td>
</tr>

<style>
  td {
    padding: 0.3rem 0.4rem;
  }

  td:first-child {
    width: 8rem;
  }

  td:nth-child(2) {
    width: 10.5rem;
  }

  .required {
    width: 4rem;
    text-align: center;
    padding-top: 0.5rem;
  }

  .missing td {
    box-shadow: inset 0 -1px 0 var(--none);
  }

  .more {
    font-size: 0.8125rem;
  }

  .more summary {
    cursor: pointer;
    color: var(--reed);
    font-size: 0.75rem;
  }

  .more label {
    display: grid;
  }

  td:nth-child(4) {
    width: 11rem;
  }

  .acts {
    white-space: nowrap;
    width: 6.5rem;
  }

  .acts button {
    padding: 0.15rem 0.25rem;
  }
</style>
