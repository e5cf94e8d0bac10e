<script lang="ts">
  import type { Evaluation } from '$core/measure/evaluate.js';
  import { percent } from '../shared/format.js';
  import Term from '../shared/Term.svelte';
  import { TERMS } from '../shared/terms.js';

  /** The line of figures of a test run. */
  const { evaluation }: { evaluation: Evaluation } = $props();

  const exact = (share: number | null) => (share === null ? '–' : `${(share * 100).toFixed(1)} %`);
  const decimal = (figure: number | null) => (figure === null ? '–' : figure.toFixed(3));

  const figures = $derived([
    {
      name: 'accuracy',
      value: exact(evaluation.accuracy),
      means: `First intent right, of ${evaluation.inScope} messages in scope`,
      test: 'accuracy',
    },
    { name: 'first three', value: exact(evaluation.topThree), means: TERMS.firstThree },
    {
      name: 'macro F1',
      value: decimal(evaluation.macro.f1),
      means: 'Mean of the F1 of all intents; what is out of scope and not kept out counts against precision',
    },
    {
      name: 'weighted F1',
      value: decimal(evaluation.weightedF1),
      means: 'The same, each intent counting as often as it is tested',
    },
    {
      name: 'kappa',
      value: decimal(evaluation.kappa),
      means: 'Agreement with the labels beyond what chance would give, out of scope being one of them; 1 is all',
    },
    {
      name: 'accepted',
      value: percent(evaluation.gate.acceptedInScope),
      means: 'Of the messages in scope, accepted at the current levels',
    },
    {
      name: 'right when accepted',
      value: exact(evaluation.gate.acceptedPrecision),
      means: `Of ${evaluation.gate.accepted} messages accepted`,
    },
    {
      name: 'out of scope kept out',
      value: percent(evaluation.gate.outOfScopeRecall),
      means: `Not matched, of ${evaluation.outOfScope} out of scope`,
    },
    {
      name: 'area under the curve',
      value: decimal(evaluation.auroc),
      means: TERMS.curve,
    },
    {
      name: 'calibration error',
      value: decimal(evaluation.calibrationError),
      means: TERMS.calibration,
    },
    {
      name: 'over all',
      value: decimal(evaluation.calibrationErrorOverall ?? null),
      means: 'The calibration error with the messages out of scope, for which every confidence is too high',
    },
    { name: 'slot F1', value: decimal(evaluation.slotF1), means: 'Slots with exactly the expected words' },
    {
      name: 'partial',
      value: decimal(evaluation.slots?.partial ?? null),
      means: 'The slot F1, some of the expected words being enough',
    },
    {
      name: 'by value',
      value: decimal(evaluation.slots?.byValue ?? null),
      means: 'The slot F1, by the value that the slot holds, wherever it stands; of lines that tell their values',
    },
    {
      name: 'entity F1',
      value: decimal(evaluation.slots?.entityExact ?? null),
      means: `Entities with exactly the expected words, whichever slot they go to; with some of them ${decimal(evaluation.slots?.entityPartial ?? null)}`,
    },
  ]);
</script>

<dl>
  {#each figures as figure (figure.name)}
    <div>
      <dt><Term means={figure.means}>{figure.name}</Term></dt>
      <dd class="figure" data-figure={figure.test}>{figure.value}</dd>
    </div>
  {/each}
</dl>

<style>
  dl {
    display: flex;
    flex-wrap: wrap;
    gap: 0.25rem 1.5rem;
    padding: 0.6rem 0;
    margin-bottom: 0.5rem;
    border-bottom: 1px solid var(--line);
  }

  dt {
    font-size: 0.75rem;
    color: var(--ink-soft);
  }

  dd {
    margin: 0;
    font-size: 1.05rem;
  }
</style>
