<script lang="ts">
  import { NumberInput } from 'carbon-components-svelte';
  import { Draft } from './draft.svelte.js';

  /** A number, kept when the field is left; what is being typed is left alone by what other changes bring back. */
  const {
    value,
    optional = false,
    keep,
    label,
    showLabel = false,
    min,
    max,
    step = 1,
  }: {
    label: string;
    showLabel?: boolean;
    min: number;
    max: number;
    /** 1 for whole numbers. */
    step?: number;
  } & (
    | {
        optional?: false;
        value: number;
        /** @returns `false` or a sentence that says why, or a promise of it, if the number was refused */
        keep: (value: number) => unknown;
      }
    | {
        /** It may be left empty, which is kept as `null`. */
        optional: true;
        value: number | null;
        keep: (value: number | null) => unknown;
      }
  ) = $props();

  const isEmpty = (typed: string): boolean => optional && typed.trim() === '';

  function fits(typed: string): boolean {
    const number = Number(typed);
    return typed.trim() !== '' && number >= min && number <= max && (step !== 1 || Number.isInteger(number));
  }

  const draft = new Draft(
    () => (value === null ? '' : String(value)),
    (typed) =>
      (fits(typed) || isEmpty(typed)) &&
      (keep as (value: number | null) => unknown)(isEmpty(typed) ? null : Number(typed)),
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
  allowEmpty={optional}
  value={draft.shown === '' ? null : Number(draft.shown)}
  invalid={draft.refused !== null}
  invalidText={draft.refused || `From ${min} to ${max.toLocaleString('en-GB')}.`}
  on:input={({ detail }) => draft.type(String(detail ?? ''))}
  on:blur={() => draft.left()}
  on:keydown={(event) => draft.press(event, { lines: false })}
/>
