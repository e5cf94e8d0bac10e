<script lang="ts">
  import type { Entity, Form, JsonLogicRule, Slot } from '$core/bot/document.js';
  import { rowsOf, ruleOf, type Comparison, type ConditionRow } from '$core/say/condition.js';
  import Cell from '../shared/Cell.svelte';
  import Choice from '../shared/Choice.svelte';

  /** When a slot is asked for: rows that compare other slots with values. */
  const {
    form,
    slot,
    entities,
    keep,
  }: { form: Form; slot: Slot; entities: Entity[]; keep: (rule: JsonLogicRule | null) => unknown } = $props();

  const COMPARISONS: Comparison[] = ['is', 'is not', 'one of', 'is given', 'is not given', 'more than', 'less than'];

  const others = $derived(form.slots.filter((other) => other.name !== slot.name));
  const condition = $derived(rowsOf(slot.when));

  const entityOf = (name: string): Entity | undefined => {
    const entity = form.slots.find((other) => other.name === name)?.entity;
    return entity === undefined ? undefined : entities.find((item) => item.name === entity);
  };
  const valuesOf = (name: string): string[] => entityOf(name)?.values?.map(({ value }) => value) ?? [];
  const takesNoValue = (comparison: Comparison) => comparison === 'is given' || comparison === 'is not given';

  /** A typed value: a figure for what is counted. */
  const typed = (name: string, text: string): string | number =>
    text.trim() !== '' && Number.isFinite(Number(text)) && valuesOf(name).length === 0 ? Number(text) : text.trim();

  function write(rows: ConditionRow[], join = condition?.join ?? 'all') {
    return keep(ruleOf({ join, rows }));
  }

  function firstRow(name: string): ConditionRow {
    const [value] = valuesOf(name);
    return value === undefined
      ? { slot: name, comparison: 'is given', values: [] }
      : { slot: name, comparison: 'is', values: [value] };
  }

  const change = (at: number, row: ConditionRow) =>
    write(condition!.rows.map((old, index) => (index === at ? row : old)));

  function compare(at: number, row: ConditionRow, comparison: Comparison) {
    const [first] = row.values.length > 0 ? row.values : [valuesOf(row.slot)[0] ?? ''];
    const values = takesNoValue(comparison) ? [] : comparison === 'one of' ? row.values : [first!];
    return change(at, { ...row, comparison, values });
  }

  function toggle(at: number, row: ConditionRow, value: string, on: boolean) {
    const values = on ? [...row.values, value] : row.values.filter((other) => other !== value);
    return values.length > 0 ? change(at, { ...row, values }) : false;
  }
</script>

{#if condition === null}
  <span class="soft">when <code>{JSON.stringify(slot.when)}</code></span>
  <button class="quiet" onclick={() => keep(null)}>Always</button>
{:else}
  {#each condition.rows as row, at (at)}
    {@const values = valuesOf(row.slot)}
    <div class="row">
      <span class="soft">{at === 0 ? 'when' : condition.join === 'all' ? 'and' : 'or'}</span>
      <Choice
        value={row.slot}
        label="Slot in condition {at + 1} of {slot.name}"
        keep={(name) => change(at, firstRow(name))}
      >
        {#each others as other (other.name)}<option>{other.name}</option>{/each}
      </Choice>
      <Choice
        value={row.comparison}
        label="Comparison in condition {at + 1} of {slot.name}"
        keep={(comparison) => compare(at, row, comparison as Comparison)}
      >
        {#each COMPARISONS as comparison (comparison)}<option>{comparison}</option>{/each}
      </Choice>
      {#if row.comparison === 'one of' && values.length > 0}
        <fieldset>
          <legend class="unseen">Values in condition {at + 1} of {slot.name}</legend>
          {#each values as value (value)}
            <label>
              <input
                type="checkbox"
                checked={row.values.includes(value)}
                onchange={async (event) => {
                  const box = event.currentTarget;
                  if ((await toggle(at, row, value, box.checked)) === false) box.checked = !box.checked;
                }}
              />
              {value}</label
            >
          {/each}
        </fieldset>
      {:else if !takesNoValue(row.comparison)}
        {#if values.length > 0 && (row.comparison === 'is' || row.comparison === 'is not')}
          <Choice
            value={String(row.values[0] ?? '')}
            label="Value in condition {at + 1} of {slot.name}"
            keep={(value) => change(at, { ...row, values: [value] })}
          >
            {#if !values.includes(String(row.values[0]))}<option value={String(row.values[0])}
                >{row.values[0]} (no value)</option
              >{/if}
            {#each values as value (value)}<option>{value}</option>{/each}
          </Choice>
        {:else}
          <Cell
            value={row.values.join(', ')}
            label="Value in condition {at + 1} of {slot.name}"
            keep={(text) =>
              change(at, {
                ...row,
                values:
                  row.comparison === 'one of'
                    ? text.split(',').map((part) => typed(row.slot, part))
                    : [typed(row.slot, text)],
              })}
          />
        {/if}
      {/if}
      <button
        class="quiet danger"
        aria-label="Take condition {at + 1} of {slot.name} away"
        title="Take away"
        onclick={() => write(condition.rows.filter((_, index) => index !== at))}>×</button
      >
    </div>
  {/each}
  {#if others.length > 0}
    <div class="more">
      {#if condition.rows.length === 0}<span class="soft">always</span>{/if}
      <button
        class="quiet"
        aria-label="Add a condition to {slot.name}"
        onclick={() => write([...condition.rows, firstRow(others[0]!.name)])}
        >{condition.rows.length === 0 ? 'only when …' : 'and …'}</button
      >
      {#if condition.rows.length > 1}
        <Choice
          value={condition.join}
          label="How the conditions of {slot.name} are joined"
          keep={(join) => write(condition.rows, join as 'all' | 'any')}
        >
          <option value="all">all must hold</option>
          <option value="any">any of them</option>
        </Choice>
      {/if}
    </div>
  {/if}
{/if}

<style>
  .row {
    display: grid;
    grid-template-columns: 2.2rem minmax(0, 1fr) auto;
    align-items: baseline;
    gap: 0.1rem 0.25rem;
    font-size: 0.8125rem;
    padding-bottom: 0.25rem;
  }

  .row > :global(:nth-child(n + 3):not(button)) {
    grid-column: 2;
  }

  .row > button {
    grid-column: 3;
    grid-row: 1;
  }

  fieldset {
    border: 0;
    padding: 0;
    margin: 0;
    display: grid;
  }

  .more {
    display: flex;
    align-items: baseline;
    gap: 0.35rem;
    font-size: 0.8125rem;
  }

  code {
    font-family: var(--mono);
    font-size: 0.75rem;
    overflow-wrap: anywhere;
  }
</style>
