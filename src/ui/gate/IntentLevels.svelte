<script lang="ts">
  import { heldOf, type Named } from '$core/text/named.js';
  import type { GateIntent } from '$core/contract/gate.js';
  import type { IntentGateFigures } from '$core/measure/gateFigures.js';
  import { acceptLevel, type Gate } from '$core/recognise/gate.js';
  import NumberField from '../shared/NumberField.svelte';

  /** From what confidence each intent is acted on: by what it does, unless it has a level of its own. */
  const {
    intents,
    figures,
    gate,
    keep,
  }: {
    intents: readonly GateIntent[];
    figures: Named<IntentGateFigures>;
    gate: Gate;
    /** @param level `null`: what it does decides */
    keep: (intent: string, level: number | null) => unknown;
  } = $props();

  const DOES: Readonly<Record<GateIntent['does'], string>> = {
    'read back': 'opens a form that is read back',
    form: 'opens a form, nothing is read back',
    desk: 'goes to a desk',
    reply: 'is answered',
  };
  const NONE: IntentGateFigures = { accepted: 0, wrong: 0, asked: 0, missed: 0 };
</script>

<section aria-label="Levels by intent">
  <h2>What each intent does, and from what level</h2>
  <p class="soft">
    A form that is read back opens on less, for a mistake is found before anything is done. Give an intent that must not
    go wrong a level of its own.
  </p>
  <table class="sheet">
    <thead>
      <tr>
        <th scope="col">intent</th>
        <th scope="col">what it does</th>
        <th scope="col" class="number">first of</th>
        <th scope="col" class="number">accepted</th>
        <th scope="col" class="number">of these wrong</th>
        <th scope="col" class="number">asked about</th>
        <th scope="col" class="number">accepts from</th>
        <th scope="col" class="number">its own level</th>
      </tr>
    </thead>
    <tbody>
      {#each intents as { name, does, accept } (name)}
        {@const { accepted, wrong, asked, missed } = heldOf(figures, name) ?? NONE}
        <tr data-intent={name}>
          <th scope="row">{name}</th>
          <td>{DOES[does]}</td>
          <td class="number">{accepted + asked + missed}</td>
          <td class="number">{accepted}</td>
          <td class="number">{wrong}</td>
          <td class="number">{asked}</td>
          <td class="number">{acceptLevel(name, gate).toFixed(2)}</td>
          <td class="own">
            <NumberField
              label="Accept level of {name}"
              min={0}
              max={1}
              step={0.01}
              value={accept}
              optional
              keep={(level) => keep(name, level)}
            />
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
</section>

<style>
  section {
    grid-column: 1 / -1;
  }

  p {
    margin-bottom: 0.35rem;
  }

  :is(td, th) {
    vertical-align: middle;
  }

  .own {
    width: 7rem;
  }
</style>
