<script lang="ts">
  import type { Entity, Form, JsonLogicRule, Slot } from '$core/bot/document.js';
  import { rowsOf, ruleOf, type Comparison, type ConditionRow } from '$core/say/condition.js';
  import Cell from '../shared/Cell.svelte';
  import Choice from '../shared/Choice.svelte';
  import Tick from '../shared/Tick.svelte';
  import Act from '../shared/Act.svelte';

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

  /** Values to choose from, with the one that is compared where the list has it no more. */
  const withOwn = (values: string[], own: string) =>
    values.includes(own) ? values : [{ value: own, text: `${own} (no value)` }, ...values];

  /** A typed value: a figure for what is counted. */
  const typed = (name: string, text: string): string | number =>
    text.trim() !== '' && Number.isFinite(Number(text)) && entityOf(name)?.kind !== 'list' ? Number(text) : text.trim();

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
  <Act onclick={() => keep(null)}>Always</Act>
{:else}
  {#each condition.rows as row, at (at)}
    {@const values = valuesOf(row.slot)}
    <div class="row">
      <span class="soft">{at === 0 ? 'when' : condition.join === 'all' ? 'and' : 'or'}</span>
      <Choice
        value={row.slot}
        label="Slot in condition {at + 1} of {slot.name}"
        options={others.map(({ name }) => name)}
        keep={(name) => change(at, firstRow(name))}
      />
      <Choice
        value={row.comparison}
        label="Comparison in condition {at + 1} of {slot.name}"
        options={COMPARISONS}
        keep={(comparison) => compare(at, row, comparison as Comparison)}
      />
      {#if row.comparison === 'one of' && values.length > 0}
        <fieldset>
          <legend class="unseen">Values in condition {at + 1} of {slot.name}</legend>
          {#each values as value (value)}
            <Tick label={value} checked={row.values.includes(value)} keep={(on) => toggle(at, row, value, on)} />
          {/each}
        </fieldset>
      {:else if !takesNoValue(row.comparison)}
        {#if values.length > 0 && (row.comparison === 'is' || row.comparison === 'is not')}
          <Choice
            value={String(row.values[0] ?? '')}
            label="Value in condition {at + 1} of {slot.name}"
            options={withOwn(values, String(row.values[0]))}
            keep={(value) => change(at, { ...row, values: [value] })}
          />
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
      <span class="away">
        <Act
          icon="delete"
          look="grave"
          label="Take condition {at + 1} of {slot.name} away"
          onclick={() => write(condition.rows.filter((_, index) => index !== at))}
        />
      </span>
    </div>
  {/each}
  {#if others.length > 0}
    <div class="more">
      {#if condition.rows.length === 0}<span class="soft">always</span>{/if}
      <Act label="Add a condition to {slot.name}" onclick={() => write([...condition.rows, firstRow(others[0]!.name)])}
        >{condition.rows.length === 0 ? 'only when …' : 'and …'}</Act
      >
      {#if condition.rows.length > 1}
        <Choice
          value={condition.join}
          label="How the conditions of {slot.name} are joined"
          options={[
            { value: 'all', text: 'all must hold' },
            { value: 'any', text: 'any of them' },
          ]}
          keep={(join) => write(condition.rows, join as 'all' | 'any')}
        />
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

  .row > :global(:nth-child(n + 3):not(.away)) {
    grid-column: 2;
  }

  .away {
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
