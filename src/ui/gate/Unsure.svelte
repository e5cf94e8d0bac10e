<script lang="ts">
  import type { NoMatchChange } from '$core/bot/acts/index.js';
  import {
    clarifyOf,
    HELP_STEPS,
    type ClarifySettings,
    type HelpStep,
    type NoMatchSettings,
  } from '$core/bot/document.js';
  import type { GateView } from '$core/contract/gate.js';
  import type { Gate } from '$core/recognise/gate.js';
  import { keepEdit } from '../shared/acts.js';
  import Act from '../shared/Act.svelte';
  import Choice from '../shared/Choice.svelte';
  import NumberField from '../shared/NumberField.svelte';

  /** How the bot asks where it is unsure, and where help is sought when it understands nothing. */
  const {
    botId,
    gate,
    noMatch,
    desks,
    through,
    by,
  }: {
    botId: number;
    gate: Gate;
    noMatch: NoMatchSettings;
    desks: string[];
    through: GateView['through'];
    /** What the messages are that may make it ask. */
    by: keyof typeof NONE;
  } = $props();

  const asking = $derived(clarifyOf(gate));
  const order = $derived<HelpStep[]>(noMatch.order ?? Array.from({ length: noMatch.tries - 1 }, () => 'reword'));
  const MOST_STEPS = 9;
  const NONE = {
    run: 'None of the messages of the run shows it.',
    utterances: 'Utterances that it was taught seldom show it: run a test set.',
  };
  const parts = $derived(
    through
      ? [
          { name: 'Several in reach', lines: through.several, without: NONE[by] },
          { name: 'One in reach', lines: through.one, without: NONE[by] },
          { name: 'Nothing understood', lines: through.noMatch, without: '' },
          { name: 'Nothing said', lines: through.silence, without: '' },
        ]
      : [],
  );
  const STEPS: Readonly<Record<HelpStep, string>> = {
    reword: 'asks to put it another way',
    nearest: 'offers what comes nearest',
    options: 'says what it can do',
    desk: 'hands over',
    end: 'ends',
  };

  const ask = (clarify: Partial<ClarifySettings>) => keepEdit(botId, { do: 'changeGate', to: { clarify } });
  const setNoMatch = (to: NoMatchChange) => keepEdit(botId, { do: 'changeNoMatch', to });
  const setOrder = (steps: HelpStep[]) => setNoMatch({ order: steps.length > 0 ? steps : null });
</script>

<div class="unsure">
  <section aria-label="When it is unsure">
    <h2>When it is unsure</h2>
    <div class="fields">
      <span>offers at most</span>
      <NumberField label="Intents offered at most" min={2} max={5} value={asking.most} keep={(most) => ask({ most })} />
      <span>asks in a row</span>
      <NumberField label="Clarifications in a row" min={1} max={9} value={asking.asks} keep={(asks) => ask({ asks })} />
      <span>a single likely one</span>
      <Choice
        label="A single likely intent"
        value={asking.single}
        options={[
          { value: 'ask', text: 'is asked about' },
          { value: 'take', text: 'is taken, and said so' },
        ]}
        keep={(single) => ask({ single: single as ClarifySettings['single'] })}
      />
      <span>“none of those”</span>
      <Choice
        label="What none of those leads to"
        value={asking.neither}
        options={[
          { value: 'noMatch', text: 'is a failed try' },
          { value: 'desk', text: 'goes to a desk at once' },
        ]}
        keep={(neither) => ask({ neither: neither as ClarifySettings['neither'] })}
      />
    </div>
    <h2>When it understands nothing</h2>
    <ol class="steps" aria-label="Where help is sought">
      {#each order as step, at (at)}
        <li>
          <Choice
            label="Where help is sought at try {at + 1}"
            value={step}
            options={HELP_STEPS.map((value) => ({ value, text: STEPS[value] }))}
            keep={(chosen) => setOrder(order.with(at, chosen as HelpStep))}
          />
          <Act icon="close" label="Take try {at + 1} away" onclick={() => setOrder(order.toSpliced(at, 1))} />
        </li>
      {/each}
      <li class="soft">
        {#if order.length < MOST_STEPS}
          <Act onclick={() => setOrder([...order, 'reword'])}>Another try</Act>
        {/if}
        then
        <Choice
          label="The desk that takes over"
          value={noMatch.desk ?? ''}
          options={[{ value: '', text: desks.length > 0 ? `${desks[0]} (the first)` : 'it ends' }, ...desks]}
          keep={(desk) => setNoMatch({ desk: desk || null })}
        />
      </li>
    </ol>
    <div class="fields">
      <span>in a form, tries</span>
      <NumberField
        label="Failed tries in a row in a form"
        min={1}
        max={9}
        value={noMatch.tries}
        keep={(tries) => setNoMatch({ tries })}
      />
      <span>silences</span>
      <NumberField
        label="Silences in a row"
        min={1}
        max={9}
        value={noMatch.silences ?? null}
        optional
        keep={(silences) => setNoMatch({ silences })}
      />
    </div>
    <p class="soft">
      A slot may have tries of its own, in <a href="/bots/{botId}/say">Say</a>; the words stand in its
      <a href="/bots/{botId}/say/texts">texts</a>.
    </p>
  </section>
  <section aria-label="Read-through">
    <h2>Read-through</h2>
    {#if through}
      <div class="all">
        {#each parts as { name, lines, without } (name)}
          <div>
            <h3>{name}</h3>
            {#if lines}
              <ol class="through" aria-label={name}>
                {#each lines as { from, text }, at (at)}
                  <li class={from} class:customer={from === 'user'}>
                    <span class="unseen">{from === 'user' ? 'Customer: ' : 'Bot: '}</span>{text}
                  </li>
                {/each}
              </ol>
            {:else}
              <p class="soft">{without}</p>
            {/if}
          </div>
        {/each}
      </div>
    {:else}
      <p class="soft">The model is being trained; it appears when it is.</p>
    {/if}
  </section>
</div>

<style>
  .unsure {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 1rem 2rem;
    margin-top: 1rem;
    padding-top: 0.5rem;
    border-top: 1px solid var(--line);
  }

  .fields {
    display: grid;
    grid-template-columns: auto 12rem;
    gap: 0.35rem 0.75rem;
    align-items: center;
    justify-content: start;
    margin-bottom: 0.75rem;
  }

  .steps li {
    display: flex;
    gap: 0.5rem;
    align-items: center;
    padding-block: 0.15rem;
  }

  .steps {
    margin-bottom: 0.75rem;
  }

  .all {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 1.5rem;
  }

  .through .bot {
    padding-left: 1rem;
    margin-bottom: 0.25rem;
    color: var(--ink-soft);
  }
</style>
