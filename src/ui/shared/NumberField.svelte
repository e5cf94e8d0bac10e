<script lang="ts">
  import { NumberInput } from 'carbon-components-svelte';
  import { Draft } from './draft.svelte.js';

  /** A number, kept when the field is left; what is being typed is left alone by what other changes bring back. */
  const {
    value,
    keep,
    label,
    showLabel = false,
    min,
    max,
    step = 1,
  }: {
    value: number;
    /** @returns `false` or a sentence that says why, or a promise of it, if the number was refused */
    keep: (value: number) => unknown;
    label: string;
    showLabel?: boolean;
    min: number;
    max: number;
    /** 1 for whole numbers. */
    step?: number;
  } = $props();

  const fits = (typed: string): boolean => {
    const number = Number(typed);
    return typed.trim() !== '' && number >= min && number <= max && (step !== 1 || Number.isInteger(number));
  };

  const draft = new Draft(
    () => String(value),
    (typed) => fits(typed) && keep(Number(typed)),
  );
</script>

<NumberInput
  labelText={label}
  hideLabel={!showLabel}
  hideSteppers
  size="sm"
  {min}
  {max}
  {step}
  value={draft.shown === '' ? null : Number(draft.shown)}
  invalid={draft.refused !== null}
  invalidText={draft.refused || `From ${min} to ${max.toLocaleString('en-GB')}.`}
  on:input={({ detail }) => draft.type(String(detail ?? ''))}
  on:blur={() => draft.left()}
  on:keydown={(event) => draft.press(event, { lines: false })}
/>
