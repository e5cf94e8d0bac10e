<script lang="ts">
  import type { Entity, Form, Slot } from '$core/bot/document.js';
  import type { Insert } from '$core/say/engineTexts.js';
  import type { SlotChange } from '$core/bot/acts/index.js';
  import { edit, keepEdit } from '../shared/acts.js';
  import Cell from '../shared/Cell.svelte';
  import Choice from '../shared/Choice.svelte';
  import NumberField from '../shared/NumberField.svelte';
  import Tick from '../shared/Tick.svelte';
  import ConditionRows from './ConditionRows.svelte';
  import TextLines from './TextLines.svelte';
  import Act from '../shared/Act.svelte';

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

  const HOLDS = [
    { value: '', text: 'as its kind has it' },
    { value: 'one', text: 'one value' },
    { value: 'several', text: 'several values' },
  ];

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
    <Choice
      value={slot.entity}
      label="Entity of {slot.name}"
      options={entities}
      keep={(name) => change({ entity: name })}
    />
  </td>
  <td class="required">
    <Tick label="{slot.name} is required" hideLabel checked={slot.required} keep={(required) => change({ required })} />
  </td>
  <td>
    <ConditionRows {form} {slot} entities={lists} keep={(when) => change({ when })} />
    <details class="more">
      <summary
        >{slot.default === undefined ? 'More' : `else ${slot.default}`}<span class="unseen">
          on {slot.name}</span
        ></summary
      >
      <span class="soft">holds</span>
      <Choice
        value={slot.several === undefined ? '' : slot.several ? 'several' : 'one'}
        label="How many values {slot.name} holds"
        options={HOLDS}
        keep={(value) => change({ several: value === '' ? null : value === 'several' })}
      />
      <span class="soft">tries</span>
      <NumberField
        label="Failed tries at {slot.name}; empty: as any"
        min={1}
        max={9}
        value={slot.tries ?? null}
        optional
        keep={(tries) => change({ tries })}
      />
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
    <Act icon="up" data-move={-1} disabled={first} label="Move {slot.name} up" onclick={() => move(-1)} />
    <Act icon="down" data-move={1} disabled={last} label="Move {slot.name} down" onclick={() => move(1)} />
    <Act icon="delete" look="grave" label="Delete {slot.name}" onclick={remove} />
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
</style>
