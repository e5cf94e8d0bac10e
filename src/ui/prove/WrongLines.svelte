<script lang="ts">
  import { DataTable } from 'carbon-components-svelte';
  import { tick } from 'svelte';
  import { escapeMarking, writeMarking } from '$core/bot/marking.js';
  import type { WrongLine } from '$core/contract/prove.js';
  import { OUT_OF_SCOPE } from '$core/measure/classification.js';
  import { edit, tell } from '../shared/acts.js';
  import { send } from '../shared/api.js';
  import { counted, share } from '../shared/format.js';
  import { refresh } from '../shared/live.svelte.js';
  import { notices } from '../shared/notices.svelte.js';
  import Explanation from '../shared/Explanation.svelte';
  import Gloss from '../shared/Gloss.svelte';
  import OutcomeMark from '../shared/OutcomeMark.svelte';
  import { probe } from '../probe/probe.svelte.js';
  import Pick from '../shared/Pick.svelte';
  import Act from '../shared/Act.svelte';

  const {
    botId,
    set,
    lines,
    intents,
    cell,
    showAll,
  }: {
    botId: number;
    set: number;
    lines: WrongLine[];
    intents: string[];
    cell: { expected: string; predicted: string } | null;
    showAll: () => void;
  } = $props();

  /** The message that is explained. */
  let explained = $state<WrongLine | null>(null);
  /** The line whose label is being corrected. */
  let relabelled = $state<number | null>(null);
  const OUTSIDE = ' out of scope';
  let section = $state<HTMLElement | null>(null);

  /** Teaches a message to the intent that it is of, its slots marked. Who is taught it is no longer tested with it. */
  async function teach({ text, expected, expectedSlots }: WrongLine) {
    if (typeof expected !== 'string') return;
    const utterance = expectedSlots?.length ? writeMarking({ text, marks: expectedSlots }) : escapeMarking(text);
    const said = `Taught to ${expected}; the line is in no figure of the next run.`;
    await edit(botId, { do: 'addUtterances', intent: expected, utterances: [utterance] }, said);
  }

  async function explain(line: WrongLine) {
    explained = line;
    await tick();
    section?.scrollIntoView({ block: 'start' });
    section?.querySelector<HTMLElement>('.why')?.focus({ preventScroll: true });
  }

  async function relabel({ id }: WrongLine, intent: string | null) {
    relabelled = null;
    if (id === null) return;
    try {
      await send('PATCH', `/api/bots/${botId}/test-sets/${set}/lines`, { ids: [id], change: { intent } });
      await refresh();
      notices.say('success', 'The label is corrected; the next run counts it so.');
    } catch (error) {
      tell(error);
    }
  }

  const shown = $derived(
    cell
      ? lines.filter((line) => (line.expected ?? OUT_OF_SCOPE) === cell.expected && line.predicted === cell.predicted)
      : lines,
  );

  const headers = [
    { key: 'verdict', value: 'Outcome' },
    { key: 'text', value: 'Message' },
    { key: 'expected', value: 'Is' },
    { key: 'predicted', value: 'Read as' },
    { key: 'confidence', value: 'Confidence' },
    { key: 'acts', value: 'Acts', sort: false as const },
  ] as const;
  const rows = $derived(
    shown.map(({ verdict, text, expected, predicted, confidence }, id) => ({
      id,
      verdict,
      text,
      expected: expected ?? '',
      predicted: predicted ?? '',
      confidence,
      acts: '',
    })),
  );
</script>

<section aria-label="Wrong lines" bind:this={section}>
  <div class="head">
    <h2>{cell ? `${cell.expected} read as ${cell.predicted}` : 'Wrong lines, sure and wrong first'}</h2>
    <span class="soft">{counted(shown.length, 'line')}</span>
    {#if cell}<Act onclick={showAll}>Show all</Act>{/if}
  </div>
  {#if explained}
    <div class="explained" aria-label="Explanation" role="group">
      <span class="said"
        ><span class="customer">{explained.text}</span>
        <span class="soft">is {explained.expected ?? 'out of scope'}, read as {explained.predicted ?? 'nothing'}</span>
        <Act icon="close" label="Close the explanation" onclick={() => (explained = null)} /></span
      >
      <Explanation {botId} text={explained.text} expected={explained.expected ?? null} />
    </div>
  {/if}
  <DataTable size="compact" sortable {headers} {rows}>
    <svelte:fragment slot="cell" let:row let:cell>
      {@const line = shown[row.id]!}
      {#if cell.key === 'verdict'}
        <span class="verdict"><OutcomeMark decision={line.decision} /> {line.verdict}</span>
      {:else if cell.key === 'text'}
        <Gloss text={line.text} spans={[]} />
        {#if line.slotFaults && line.expected === line.predicted}
          <p class="soft">
            {#each line.slotFaults.missing as { slot, text }, at (at)}<span>{slot} “{text}” not found. </span>{/each}
            {#each line.slotFaults.extra as { slot, text }, at (at)}<span
                >{slot} “{text}” ought not to be.
              </span>{/each}
          </p>
        {/if}
        {#if line.unread}<p class="soft">{line.unread.join(', ')} could not be looked for in it</p>{/if}
      {:else if cell.key === 'expected'}
        {#if line.expected}
          <a href="/bots/{botId}/teach?intent={encodeURIComponent(line.expected)}">{line.expected}</a>
        {:else}out of scope{/if}
      {:else if cell.key === 'predicted'}
        {line.predicted ?? '–'}{#if line.place !== null && line.place > 1}<span class="soft place"
            >, right one at {line.place}</span
          >{/if}
      {:else if cell.key === 'confidence'}
        <span class="figure">{share(line.confidence)}</span>
      {:else if relabelled === row.id}
        {#if line.predicted !== null}
          <Act look="firm" onclick={() => relabel(line, line.predicted)}>It is {line.predicted}</Act>
        {/if}
        <Pick
          label="What the message is"
          placeholder="It is …"
          value={null}
          options={[{ value: OUTSIDE, text: 'out of scope' }, ...intents]}
          choose={(value) => void relabel(line, value === OUTSIDE ? null : value)}
        />
        <Act icon="close" label="Leave the label" onclick={() => (relabelled = null)} />
      {:else}
        <span class="acts">
          {#if line.expected}
            <Act label="Teach this message to {line.expected}" onclick={() => teach(line)}>Teach</Act>
          {/if}
          {#if line.id !== null}
            <Act label="Correct the label of this message" onclick={() => (relabelled = row.id)}>Label</Act>
          {/if}
          <Act label="Why this message is read so" onclick={() => explain(line)}>Why</Act>
          <Act
            label="Put this message into the probe"
            onclick={() => {
              probe.text = line.text;
              probe.focus();
            }}>Probe</Act
          >
        </span>
      {/if}
    </svelte:fragment>
  </DataTable>
</section>

<style>
  .explained {
    padding: 0.25rem 0.75rem;
    margin-block: 0.5rem;
    border: 1px solid var(--line-strong);
  }

  .said {
    display: flex;
    gap: 0.5rem;
    align-items: baseline;
  }

  .place {
    white-space: nowrap;
  }

  section {
    margin-top: 1rem;
  }

  .head {
    display: flex;
    gap: 0.75rem;
    align-items: baseline;
  }

  .verdict {
    white-space: nowrap;
  }

  .acts {
    display: flex;
  }
</style>
