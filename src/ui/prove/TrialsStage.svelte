<script lang="ts">
  import type { JobView } from '$core/contract/job.js';
  import { TRIALS, type TrialsView, type TrialWish } from '$core/contract/trial.js';
  import { tell } from '../shared/acts.js';
  import { send } from '../shared/api.js';
  import Act from '../shared/Act.svelte';
  import Choice from '../shared/Choice.svelte';
  import JobProgress from '../shared/JobProgress.svelte';
  import { live, refresh } from '../shared/live.svelte.js';
  import NumberField from '../shared/NumberField.svelte';
  import ReadAt from '../shared/ReadAt.svelte';
  import Tabs from '../shared/Tabs.svelte';
  import Term from '../shared/Term.svelte';
  import CrossValidation from './CrossValidation.svelte';
  import Customers from './Customers.svelte';
  import LearningCurve from './LearningCurve.svelte';
  import NoiseTrials from './NoiseTrials.svelte';
  import Walkthroughs from './Walkthroughs.svelte';

  /** What the bot is put through besides its test sets. */
  const {
    botId,
    view,
    revision,
    show,
  }: { botId: number; view: TrialsView; revision: number; show: (typeof TRIALS)[number] } = $props();

  const base = $derived(`/bots/${botId}/prove`);
  const NAMES: Readonly<Record<(typeof TRIALS)[number], string>> = {
    'cross-validation': 'Cross-validation',
    'learning curve': 'Learning curve',
    noise: 'Noise',
    customers: 'Simulated customers',
    walkthroughs: 'Walkthroughs',
  };
  const MEANS: Readonly<Record<(typeof TRIALS)[number], string>> = {
    'cross-validation':
      'Each utterance is read by models that were taught four fifths of the others, again and again with other fifths.',
    'learning curve':
      'The bot is taught with a quarter of its utterances, a half, three quarters and all, and reads the rest.',
    noise:
      'The lines of a test set are written as customers write when they hurry, speak, tell a story or mix languages.',
    customers:
      'Customers made from the bot itself come for its forms. They open with its own utterances: this proves the conversation, not the recognition.',
    walkthroughs: 'Conversations that were kept are run again after each change.',
  };
  const UNITS: Readonly<Record<TrialWish['kind'], string>> = {
    'cross-validation': 'models taught and tried',
    'learning curve': 'models taught and tried',
    noise: 'lines read',
    customers: 'conversations',
  };

  const kind = $derived(show === 'walkthroughs' ? null : show);
  const last = $derived(kind && view.trials[kind]);
  let seed = $state(1);
  let repeats = $state(3);
  let conversations = $state(120);
  let strength = $state('0.5');
  let set = $derived(String(view.trials.noise?.result.set.id ?? view.testSets[0]?.id ?? ''));

  let closed = $state<number | null>(null);
  let begun = $state<number | null>(null);
  const job = $derived(
    live.jobs.find((one) => one.kind === kind && one.id !== closed && (one.state === 'running' || one.id === begun)),
  );

  // A trial that is over shows in what is loaded then, whoever began it.
  const seen = new Set<number>();
  $effect(() => {
    const over = live.jobs.filter(({ id, kind: one, state }) => one === kind && state === 'done' && !seen.has(id));
    for (const { id } of over) seen.add(id);
    if (over.length > 0) void refresh();
  });

  async function run() {
    if (!kind) return;
    const wish: TrialWish = {
      kind,
      seed,
      ...(kind === 'cross-validation' && { repeats }),
      ...(kind === 'noise' && set !== '' && { set: Number(set), strength: Number(strength) }),
      ...(kind === 'customers' && { conversations }),
    };
    try {
      begun = (await send<JobView>('POST', `/api/bots/${botId}/trials`, wish)).id;
    } catch (error) {
      tell(error);
    }
  }
</script>

<div class="trials">
  <div class="tools">
    <h1>Prove</h1>
    <a href={base}>Test sets</a>
    <Tabs
      label="Trials"
      tabs={TRIALS.map((name) => ({
        href: `${base}/trials?show=${encodeURIComponent(name)}`,
        text: NAMES[name],
        current: name === show,
      }))}
    />
  </div>
  <p class="soft">{MEANS[show]}</p>
  {#if kind}
    <div class="tools settings">
      <Act look="main" onclick={run} disabled={job?.state === 'running'}>Run</Act>
      {#if kind === 'cross-validation'}
        <span>repeats</span>
        <NumberField label="Repeats" min={1} max={20} value={repeats} keep={(number) => void (repeats = number)} />
      {:else if kind === 'noise' && view.testSets.length > 0}
        <Choice
          label="Test set"
          value={set}
          options={view.testSets.map(({ id, name, lines }) => ({ value: String(id), text: `${name} (${lines})` }))}
          keep={(chosen) => void (set = chosen)}
        />
        <Choice
          label="Strength"
          value={strength}
          options={[
            { value: '0.25', text: 'a little' },
            { value: '0.5', text: 'as is usual' },
            { value: '1', text: 'much' },
          ]}
          keep={(chosen) => void (strength = chosen)}
        />
      {:else if kind === 'customers'}
        <span>conversations</span>
        <NumberField
          label="Conversations"
          min={1}
          max={1000}
          value={conversations}
          keep={(number) => void (conversations = number)}
        />
      {/if}
      <Term means="The same seed draws the same; another draws anew.">seed</Term>
      <NumberField label="Seed" min={1} max={1_000_000} value={seed} keep={(number) => void (seed = number)} />
      {#if last}
        <ReadAt word="tried" at={last.madeAt} revision={last.revision} now={revision} />
      {/if}
    </div>
  {/if}
  {#if job && job.state !== 'done' && kind}
    <JobProgress
      {job}
      label={NAMES[show]}
      unit={UNITS[kind]}
      stopped="Stopped. What was tried last is shown."
      close={() => (closed = job.id)}
    />
  {/if}
  {#if show === 'walkthroughs'}
    <Walkthroughs {botId} results={view.walkthroughs} />
  {:else if !last}
    <p class="empty">Not tried yet.</p>
  {:else if view.trials.noise && show === 'noise'}
    <NoiseTrials trial={view.trials.noise} />
  {:else if view.trials['cross-validation'] && show === 'cross-validation'}
    <CrossValidation {botId} result={view.trials['cross-validation'].result} />
  {:else if view.trials['learning curve'] && show === 'learning curve'}
    <LearningCurve {botId} result={view.trials['learning curve'].result} />
  {:else if view.trials.customers && show === 'customers'}
    {#key view.trials.customers.id}<Customers {botId} trial={view.trials.customers} />{/key}
  {/if}
</div>

<style>
  .trials {
    height: 100%;
    overflow-y: auto;
    padding: 0.5rem 0.75rem 1rem;
  }

  .tools {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 1rem;
    align-items: center;
  }

  .settings {
    padding-block: 0.35rem 0.6rem;
  }

  .settings :global(.bx--form-item:has(input)) {
    width: 5rem;
    flex: none;
  }

  .empty {
    padding: 1rem 0;
  }
</style>
