<script lang="ts">
  import type { GateCosts } from '$core/bot/document.js';
  import type { Recommendation, Recommendations } from '$core/measure/recommend.js';
  import type { Gate } from '$core/recognise/gate.js';
  import Act from '../shared/Act.svelte';
  import { decimals, percent } from '../shared/format.js';
  import NumberField from '../shared/NumberField.svelte';
  import CostCurve from './CostCurve.svelte';

  /** What mistakes cost the business, and the levels that cost least. */
  const {
    gate,
    readsBack,
    costs,
    cost,
    recommendations,
    looking,
    curve,
    keep,
    take,
  }: {
    gate: Gate;
    /** Whether the bot has forms that are read back. */
    readsBack: boolean;
    costs: GateCosts;
    /** Of a message, by the levels as they stand or are being moved. */
    cost: number;
    recommendations: Recommendations | null;
    /** Whether the recommendations are of before. */
    looking: boolean;
    curve: readonly { level: number; cost: number }[];
    keep: (costs: Partial<GateCosts>) => unknown;
    take: (gate: Gate) => void;
  } = $props();

  const MOST = 1_000_000;
  const FIELDS: readonly [key: keyof GateCosts, label: string][] = [
    ['wrongAct', 'a wrong act'],
    ['wrongForm', 'a wrong form, read back'],
    ['outsideAct', 'an act out of scope'],
    ['missed', 'a missed request'],
    ['question', 'a question'],
  ];

  const saves = ({ gate: other, now, then }: Recommendation): boolean =>
    (['accept', 'ask', 'acceptForms'] as const).some((level) => other[level] !== gate[level]) && then < now;
  const isSure = ({ saving }: Recommendation): boolean => (saving?.low ?? 0) > 0;

  /** Levels that save something, each told once. */
  const better = $derived.by(() => {
    if (!recommendations) return [];
    const { cheapest, mostAccepted } = recommendations;
    const told = [
      { name: 'Costs least', recommendation: cheapest, by: 'cost' },
      { name: 'Accepts most and costs less', recommendation: mostAccepted, by: 'accepted' },
    ];
    return told.filter(
      ({ recommendation }, at) =>
        saves(recommendation) && (at === 0 || !saves(cheapest) || recommendation.accepted > cheapest.accepted),
    );
  });
</script>

<section aria-label="Costs">
  <h2>What mistakes cost</h2>
  <div class="fields">
    {#each FIELDS as [key, label] (key)}
      <span>{label}</span>
      <NumberField
        label="Cost of {label}"
        min={0}
        max={MOST}
        step={0.01}
        value={costs[key]}
        keep={(amount) => keep({ [key]: amount })}
      />
    {/each}
  </div>
  <p>A message costs <strong class="figure" data-cost>{cost.toFixed(2)}</strong> on the mean.</p>
  {#each better as { name, recommendation, by } (name)}
    <div class="better" data-recommended={by}>
      <h3>{name}</h3>
      <p>
        Accept from <strong class="figure">{recommendation.gate.accept.toFixed(2)}</strong>,
        {#if readsBack && recommendation.gate.acceptForms !== undefined}
          forms that are read back from
          <strong class="figure">{recommendation.gate.acceptForms.toFixed(2)}</strong>,
        {/if}
        ask from
        <strong class="figure">{recommendation.gate.ask.toFixed(2)}</strong>: {recommendation.then.toFixed(2)} a message,
        {percent(recommendation.accepted)} accepted. That saves
        {#if recommendation.saving}
          {decimals(recommendation.saving.figure)}, between {decimals(recommendation.saving.low)} and
          {decimals(recommendation.saving.high)} on others like these{isSure(recommendation)
            ? '.'
            : ', so that it may save nothing.'}
        {/if}
      </p>
      <Act
        look={by === 'cost' && isSure(recommendation) ? 'main' : 'firm'}
        disabled={looking}
        label="Take the levels: {name.toLowerCase()}"
        onclick={() => take(recommendation.gate)}>Take these levels</Act
      >
    </div>
  {:else}
    {#if recommendations}<p class="soft">No other levels cost less on these messages.</p>{/if}
  {/each}
  {#if curve.length > 0}<CostCurve {curve} accept={gate.accept} />{/if}
</section>

<style>
  section {
    display: grid;
    gap: 0.5rem;
    align-content: start;
    justify-items: start;
  }

  .better {
    display: grid;
    gap: 0.35rem;
    justify-items: start;
  }

  .fields {
    display: grid;
    grid-template-columns: auto 5rem auto 5rem;
    gap: 0.35rem 0.75rem;
    align-items: center;
  }
</style>
