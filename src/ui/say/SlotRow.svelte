<script lang="ts">
  import ArrowDown from 'carbon-icons-svelte/lib/ArrowDown.svelte';
  import ArrowUp from 'carbon-icons-svelte/lib/ArrowUp.svelte';
  import TrashCan from 'carbon-icons-svelte/lib/TrashCan.svelte';
  import type { Form, Slot } from '$core/bot/document.js';
  import type { SlotChange } from '$core/bot/edit.js';
  import { edit } from '../shared/acts.js';
  import Cell from '../shared/Cell.svelte';
  import { conditionOf, conditionRule } from './condition.js';
  import TextLines from './TextLines.svelte';

  const {
    botId,
    form,
    slot,
    entities,
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
    language: string;
    first: boolean;
    last: boolean;
    missing: boolean;
    move: (by: -1 | 1) => unknown;
    remove: () => unknown;
  } = $props();

  const condition = $derived(conditionOf(slot.when));
  const others = $derived(form.slots.filter((other) => other.name !== slot.name));

  const change = (to: SlotChange) => edit(botId, { do: 'changeSlot', form: form.name, slot: slot.name, to });
  const rename = (to: string) => edit(botId, { do: 'renameSlot', form: form.name, from: slot.name, to });
  const setCondition = (other: string, value: string) =>
    change({ when: other === '' ? null : conditionRule(other, value) });
</script>

<tr data-slot={slot.name} class:missing>
  <td><Cell value={slot.name} label="Name of slot {slot.name}" keep={rename} /></td>
  <td>
    <select
      class="cell"
      value={slot.entity}
      aria-label="Entity of {slot.name}"
      onchange={(event) => change({ entity: event.currentTarget.value })}
    >
      {#each entities as entity (entity)}<option value={entity}>{entity}</option>{/each}
    </select>
  </td>
  <td class="required">
    <input
      type="checkbox"
      checked={slot.required}
      aria-label="{slot.name} is required"
      onchange={(event) => change({ required: event.currentTarget.checked })}
    />
  </td>
  <td>
    <span class="condition soft">
      {#if condition === 'other'}
        when <code>{JSON.stringify(slot.when)}</code>
      {:else if condition === null}
        {#if others.length > 0}
          <select
            class="cell"
            value=""
            aria-label="Ask for {slot.name} only when"
            onchange={(event) => setCondition(event.currentTarget.value, '')}
          >
            <option value="">always</option>
            {#each others as other (other.name)}<option value={other.name}>when {other.name} is …</option>{/each}
          </select>
        {/if}
      {:else}
        <select
          class="cell"
          value={condition.slot}
          aria-label="Ask for {slot.name} only when"
          onchange={(event) => setCondition(event.currentTarget.value, condition.value)}
        >
          <option value="">always</option>
          {#each others as other (other.name)}<option value={other.name}>when {other.name} is</option>{/each}
        </select>
        <Cell
          value={condition.value}
          label="Value of {condition.slot} for which {slot.name} is asked"
          keep={(value) => setCondition(condition.slot, value)}
        />
      {/if}
    </span>
  </td>
  <td>
    <TextLines
      label="Prompts of {slot.name}"
      hideLabel
      text={slot.prompts}
      {language}
      placeholder={slot.required ? 'What is asked for it?' : 'Optional: asked only if it is required'}
      keep={(prompts) => change({ prompts: prompts ?? [] })}
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
    width: 8.5rem;
  }

  .required {
    width: 4rem;
    text-align: center;
    padding-top: 0.5rem;
  }

  .missing td {
    box-shadow: inset 0 -1px 0 var(--none);
  }

  .condition {
    display: grid;
    font-size: 0.8125rem;
  }

  td:nth-child(4) {
    width: 9.5rem;
  }

  .acts {
    white-space: nowrap;
    width: 6.5rem;
  }

  .acts button {
    padding: 0.15rem 0.25rem;
  }
</style>
