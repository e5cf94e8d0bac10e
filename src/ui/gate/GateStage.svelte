<script lang="ts">
  import { goto } from '$app/navigation';
  import type { GateChange } from '$core/bot/acts/index.js';
  import { DEFAULT_COSTS } from '$core/bot/document.js';
  import type { GateView } from '$core/contract/gate.js';
  import type { Gate } from '$core/recognise/gate.js';
  import { edit, keepEdit } from '../shared/acts.js';
  import Choice from '../shared/Choice.svelte';
  import { counted } from '../shared/format.js';
  import NumberField from '../shared/NumberField.svelte';
  import ReadAt from '../shared/ReadAt.svelte';
  import Term from '../shared/Term.svelte';
  import Borders from './Borders.svelte';
  import Consequences from './Consequences.svelte';
  import Costs from './Costs.svelte';
  import GateChart, { type Border } from './GateChart.svelte';
  import { Figures } from './gateFigures.svelte.js';
  import IntentLevels from './IntentLevels.svelte';
  import Unsure from './Unsure.svelte';

  /** Where the borders between accepted, asked about and not matched lie, and what that costs. */
  const { botId, view, revision }: { botId: number; view: GateView; revision: number } = $props();

  /** The levels as they are while they are moved; `null` while they stand still. */
  let moved = $state<Partial<Record<Border, number>> | null>(null);
  const gate = $derived<Gate>({ ...view.gate, ...moved });
  const costs = $derived(view.gate.costs ?? DEFAULT_COSTS);
  const readsBack = $derived(view.intents.some(({ does }) => does === 'read back'));
  let worked = $state.raw<Figures | null>(null);

  $effect(() => {
    const figures = new Figures();
    worked = figures;
    return () => figures.close();
  });
  $effect(() => worked?.takeUp(view.messages));
  $effect(() => {
    void view.messages;
    worked?.tell(gate, costs);
  });
  $effect(() => {
    void view.messages;
    worked?.recommend(view.gate, costs);
  });

  /** What is asked about ends where something is accepted. */
  function move(border: Border, level: number) {
    const { ask, accept, acceptForms = accept } = gate;
    const within =
      border === 'lead' ? level : border === 'ask' ? Math.min(level, accept, acceptForms) : Math.max(level, ask);
    moved = { ...moved, [border]: within };
  }

  async function keepMoved() {
    if (!moved) return;
    const own = moved;
    const to: GateChange = Object.fromEntries(
      Object.entries(own).filter(([border, level]) => view.gate[border as Border] !== level),
    );
    if (Object.keys(to).length > 0) await edit(botId, { do: 'changeGate', to });
    if (moved === own) moved = null;
  }

  const keep = (to: GateChange) => keepEdit(botId, { do: 'changeGate', to });
</script>

<div class="gate">
  <div class="tools">
    <h1>Gate</h1>
    {#if view.source}
      <Choice
        label="Messages that the gate is set by"
        value={String(view.source.id ?? 'utterances')}
        options={view.sources.map(({ id, name }) => ({ value: String(id ?? 'utterances'), text: name }))}
        keep={(by) => goto(`/bots/${botId}/gate?by=${by}`)}
      />
      <span class="soft">{counted(view.messages.length, 'message')}</span>
      {#if view.source.read}
        <ReadAt word="read" at={view.source.read.at} revision={view.source.read.revision} now={revision} />
      {/if}
    {/if}
    <span class="levels">
      <Term means="The least confidence that the bot asks about; below it, it does not understand.">ask from</Term>
      <NumberField
        label="Ask level"
        min={0}
        max={Math.min(gate.accept, gate.acceptForms ?? 1)}
        step={0.01}
        value={gate.ask}
        keep={(ask) => keep({ ask })}
      />
      <Term means="The least confidence that the bot acts on.">accept from</Term>
      <NumberField
        label="Accept level"
        min={gate.ask}
        max={1}
        step={0.01}
        value={gate.accept}
        keep={(accept) => keep({ accept })}
      />
      {#if readsBack}
        <Term
          means="The least confidence at which a form opens that is read back before anything is done; empty: as any other."
          >forms from</Term
        >
        <NumberField
          label="Accept level of forms that are read back"
          min={gate.ask}
          max={1}
          step={0.01}
          value={gate.acceptForms ?? null}
          optional
          keep={(acceptForms) => keep({ acceptForms })}
        />
      {/if}
      <Term means="How far the first intent must lead the next to be acted on; else the bot asks which.">lead</Term>
      <NumberField label="Lead" min={0} max={1} step={0.01} value={gate.lead} keep={(lead) => keep({ lead })} />
    </span>
  </div>
  {#if view.source}
    {#if view.source.id === null}
      <p class="soft">
        Utterances are written to differ and none is out of scope: customers’ messages tell more. <a
          href="/bots/{botId}/prove">Import and run a test set</a
        > to set the gate by.
      </p>
    {/if}
    <GateChart messages={view.messages} {gate} {readsBack} {move} keep={keepMoved} />
    {#if worked?.figures}
      <div class="below">
        <Consequences figures={worked.figures} {readsBack} />
        <Costs
          gate={view.gate}
          {readsBack}
          {costs}
          cost={worked.figures.cost}
          recommendations={worked.recommendations}
          looking={worked.looking}
          curve={worked.curve}
          keep={(amounts) => keep({ costs: amounts })}
          take={({ accept, ask, acceptForms = null }) =>
            void edit(
              botId,
              { do: 'changeGate', to: { accept, ask, acceptForms } },
              'The recommended levels are taken.',
            )}
        />
        <Borders messages={view.messages} figures={worked.figures} {gate} />
        <IntentLevels
          intents={view.intents}
          figures={worked.figures.intents}
          {gate}
          keep={(name, accept) => keepEdit(botId, { do: 'changeIntent', name, to: { accept } })}
        />
      </div>
    {/if}
  {:else}
    <p class="empty">
      The levels are set by messages that the bot has read and not been taught. There are none yet: teach some
      utterances, or
      <a href="/bots/{botId}/prove">import and run a test set</a>.
    </p>
  {/if}
  <Unsure
    {botId}
    gate={view.gate}
    noMatch={view.noMatch}
    desks={view.desks}
    through={view.through}
    by={view.source?.id ? 'run' : 'utterances'}
  />
</div>

<style>
  .gate {
    height: 100%;
    overflow-y: auto;
    padding: 0.5rem 0.75rem 1rem;
  }

  .tools,
  .levels {
    display: flex;
    gap: 0.75rem;
    align-items: center;
  }

  .levels {
    margin-left: auto;
    gap: 0.4rem;
  }

  .levels :global(.bx--form-item) {
    width: 4.5rem;
    flex: none;
  }

  .below {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 1rem 2rem;
    align-items: start;
    margin-top: 0.75rem;
  }

  .empty {
    padding: 2rem 0;
  }
</style>
