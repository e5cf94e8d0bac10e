<script module lang="ts">
  /** What of a test set is shown. */
  export type ProveShow = 'result' | 'curves' | 'lines' | 'runs';
</script>

<script lang="ts">
  import { goto } from '$app/navigation';
  import type { JobView } from '$core/contract/job.js';
  import type { ProveView } from '$core/contract/prove.js';
  import type { Fault } from '$core/shape/fault.js';
  import { tell } from '../shared/acts.js';
  import { ApiError, send, sendFile } from '../shared/api.js';
  import Choice from '../shared/Choice.svelte';
  import FaultList from '../shared/FaultList.svelte';
  import FirstSteps from '../shared/FirstSteps.svelte';
  import FileButton from '../shared/FileButton.svelte';
  import { counted } from '../shared/format.js';
  import Comparison from './Comparison.svelte';
  import ConfusionChart from './ConfusionChart.svelte';
  import Figures from './Figures.svelte';
  import Groups from './Groups.svelte';
  import IntentTable from './IntentTable.svelte';
  import Reliability from './Reliability.svelte';
  import Runs from './Runs.svelte';
  import States from './States.svelte';
  import Thresholds from './Thresholds.svelte';
  import TestSheet from './TestSheet.svelte';
  import WrongLines from './WrongLines.svelte';
  import JobProgress from '../shared/JobProgress.svelte';
  import { live, refresh } from '../shared/live.svelte.js';
  import Act from '../shared/Act.svelte';
  import NewName from '../shared/NewName.svelte';
  import Tick from '../shared/Tick.svelte';
  import Tabs from '../shared/Tabs.svelte';
  import ReadAt from '../shared/ReadAt.svelte';

  const {
    botId,
    view,
    revision,
    intents,
    show,
  }: { botId: number; view: ProveView; revision: number; intents: string[]; show: ProveShow } = $props();

  const base = $derived(`/bots/${botId}/prove`);
  const path = $derived(`${base}?set=${view.current?.id ?? ''}`);
  const SHOWN: readonly [ProveShow, string][] = [
    ['result', 'Result'],
    ['curves', 'Curves'],
    ['lines', 'Lines'],
    ['runs', 'Runs'],
  ];
  const pathOf = (what: ProveShow) => (what === 'result' ? path : `${path}&show=${what}`);
  /** Of the utterances, to test with. */
  const SHARE = 0.2;

  const TEST_FILES = ['.jsonl', '.csv', '.tsv', '.txt'];

  let refused = $state<{ message: string; faults: Fault[] } | null>(null);
  /** The run that was begun here, until what became of it is closed. */
  let watched = $state<number | null>(null);
  /** A run that came to no end, which the person has read of. */
  let closed = $state<number | null>(null);
  const progress = $derived(
    live.jobs.find(
      ({ id, kind, subject, state }) =>
        kind === 'test run' && (id === watched || (subject === view.current?.id && state === 'running')),
    ) ?? (view.unfinished?.id === closed ? null : view.unfinished),
  );
  /** The cell of the confusion matrix whose lines are shown. */
  let cell = $state<{ expected: string; predicted: string } | null>(null);

  // A run that is done shows in what is loaded then, whoever began it.
  $effect(() => {
    if (live.jobs.some(({ kind, state, result }) => kind === 'test run' && state === 'done' && isNew(result)))
      void refresh();
  });

  const shown = new Set<number>();

  function isNew(result: number | null): boolean {
    if (result === null || shown.has(result)) return false;
    shown.add(result);
    return true;
  }

  /** A table to fill in, with the intents of the bot. */
  const sample = $derived(
    `data:text/csv;charset=utf-8,${encodeURIComponent(
      ['text,intent', ...intents.map((name) => `,${name}`), 'a message that the bot is not made for,', ''].join('\r\n'),
    )}`,
  );

  async function bringIn(file: File) {
    refused = null;
    try {
      const name = file.name.replace(/\.[^.]*$/, '');
      const { id } = await sendFile<{ id: number }>(
        `/api/bots/${botId}/test-sets?name=${encodeURIComponent(name)}`,
        file,
      );
      await goto(`${base}?set=${id}`, { invalidateAll: true });
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      refused = { message: `${file.name}: ${error.message}`, faults: error.faults };
    }
  }

  async function makeSet(name: string, share?: number): Promise<boolean> {
    try {
      const wanted = share === undefined ? { name } : { name, share };
      const { id } = await send<{ id: number }>('POST', `/api/bots/${botId}/test-sets/new`, wanted);
      await goto(`${base}?set=${id}&show=lines`, { invalidateAll: true });
      return true;
    } catch (error) {
      tell(error);
      return false;
    }
  }

  /** @param state the kept state that reads, in place of the bot as it is */
  async function run(state?: number) {
    if (!view.current) return;
    cell = null;
    // The run that comes is shown, not one of before.
    await goto(path);
    try {
      const { id } = await send<JobView>('POST', `/api/bots/${botId}/test-sets/${view.current.id}/runs`, {
        ...(state !== undefined && { state }),
      });
      watched = id;
    } catch (error) {
      tell(error);
    }
  }

  /** Has the set run by itself once the bot was changed and then left alone for a while. */
  async function runAfterEdits(afterEdits: boolean): Promise<boolean> {
    try {
      await send('PATCH', `/api/bots/${botId}/test-sets/${view.current?.id}`, { afterEdits });
      await refresh();
      return true;
    } catch (error) {
      tell(error);
      return false;
    }
  }

  async function remove() {
    if (!view.current) return;
    try {
      await send('DELETE', `/api/bots/${botId}/test-sets/${view.current.id}`);
      await goto(base, { invalidateAll: true });
    } catch (error) {
      tell(error);
    }
  }
</script>

<div class="prove">
  <div class="tools">
    <h1>Prove</h1>
    <a href="{base}/trials">Trials</a>
    {#if view.testSets.length > 0}
      <Choice
        label="Test set"
        value={String(view.current?.id)}
        options={view.testSets.map(({ id, name, lines }) => ({ value: String(id), text: `${name} (${lines})` }))}
        keep={(id) => goto(`${base}?set=${id}${show === 'result' ? '' : `&show=${show}`}`)}
      />
      <Act look="main" onclick={() => run()} disabled={progress?.state === 'running'}>Run the test</Act>
      <Tick label="Run after edits" checked={view.current?.afterEdits ?? false} keep={runAfterEdits} />
      <Act icon="delete" look="grave" label="Delete the set" onclick={remove} />
    {/if}
    <NewName text="New test set" label="Name of the test set" action="Make it" submit={makeSet} />
    <NewName
      text="Set utterances aside"
      label="Name of the test set for a fifth of the utterances of each intent, which are taught no longer"
      action="Set a fifth aside"
      look="quiet"
      submit={(name) => makeSet(name, SHARE)}
    />
    <span class="import"><FileButton label="Import a test file" accept={TEST_FILES} choose={bringIn} /></span>
  </div>
  <div class="tabs">
    {#if view.current}
      <Tabs
        label="Of the test set"
        tabs={SHOWN.map(([what, words]) => ({
          href: pathOf(what),
          text: what === 'runs' ? `${words} (${view.runs.length})` : words,
          current: what === show,
        }))}
      />
    {/if}
    {#if view.run}
      <a href="{base}/report?set={view.current?.id}&run={view.run.id}">Report</a>
      <ReadAt word="run" at={view.run.ranAt} revision={view.run.revision} now={revision} />
    {/if}
  </div>
  {#if refused}<FaultList {...refused} close={() => (refused = null)} />{/if}
  {#if progress && progress.state !== 'done'}
    <div class="progress">
      <JobProgress
        job={progress}
        label="Running the test"
        unit="lines read"
        stopped="Stopped. The last finished run is shown."
        close={() => {
          watched = null;
          closed = progress.id;
        }}
      />
    </div>
  {/if}
  {#if view.sheet && view.current}
    <TestSheet {botId} set={view.current.id} lines={view.sheet} all={view.current.lines} {intents} />
  {:else if show === 'runs' && view.current}
    <Runs {path} runs={view.runs} shown={view.run?.id ?? null} against={view.comparison?.against.id ?? null} />
    <States {botId} states={view.states} points={view.points ?? []} {run} />
  {:else if show === 'curves' && view.run}
    <div class="both">
      <Thresholds thresholds={view.run.thresholds} />
      <Reliability bins={view.run.evaluation.calibration} />
    </div>
    <Groups evaluation={view.run.evaluation} />
  {:else if view.run}
    <Figures evaluation={view.run.evaluation} />
    {#if view.comparison}<Comparison comparison={view.comparison} />{/if}
    {#if view.run.taught.length > 0}
      <details class="taught">
        <summary
          >{counted(view.run.taught.length, 'line')} of the set {view.run.taught.length === 1 ? 'was' : 'were'} also taught,
          and {view.run.taught.length === 1 ? 'is' : 'are'} left out of every figure</summary
        >
        <ul>
          {#each view.run.taught as text, at (at)}<li class="customer">{text}</li>{/each}
        </ul>
      </details>
    {/if}
    <div class="both">
      <IntentTable intents={view.run.evaluation.intents} />
      <ConfusionChart confusion={view.run.evaluation.confusion} choose={(chosen) => (cell = chosen)} />
    </div>
    <WrongLines
      {botId}
      set={view.current?.id ?? 0}
      lines={view.run.wrong}
      {intents}
      {cell}
      showAll={() => (cell = null)}
    />
  {:else if view.current && !progress}
    <p class="empty">
      {counted(view.current.lines, 'line')}, not run yet. <a href={pathOf('lines')}>Look at the lines</a>
    </p>
  {:else if !progress}
    <div class="empty">
      <p>A test set is a list of messages with the intent each ought to have, none of which the bot was taught.</p>
      <p class="soft">
        Make one above and write or paste its lines, or bring in a file: JSONL with <code>text</code> and
        <code>intent</code>
        (<code>null</code> for out of scope), or CSV or TSV with those columns.
      </p>
      <p class="acts">
        <FileButton label="Import the first test file" accept={TEST_FILES} choose={bringIn} firm />
        <Act href={sample} download="test-lines.csv">Download a file to fill in</Act>
      </p>
      <FirstSteps {botId} />
    </div>
  {/if}
</div>

<style>
  .prove {
    display: flex;
    flex-direction: column;
    height: 100%;
    overflow-y: auto;
    padding: 0.5rem 0.75rem 1rem;
  }

  .tools {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 0.75rem;
    align-items: center;
  }

  .tabs {
    display: flex;
    gap: 1.5rem;
    align-items: baseline;
    padding-top: 0.35rem;
    font-size: 0.875rem;
  }

  .progress {
    padding-block: 0.5rem;
    max-width: 40rem;
  }

  .both {
    display: grid;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    gap: 1.25rem;
    align-items: start;
  }

  .taught {
    margin-bottom: 0.5rem;
    color: var(--asked);
  }

  .acts {
    display: flex;
    gap: 0.5rem;
  }

  .empty {
    padding: 2rem 0;
    display: grid;
    gap: 0.5rem;
  }
</style>
