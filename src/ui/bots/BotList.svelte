<script lang="ts">
  import { goto } from '$app/navigation';
  import { DataTable, InlineNotification } from 'carbon-components-svelte';
  import type { JobView } from '$core/contract/job.js';
  import JobProgress from '../shared/JobProgress.svelte';
  import type { BotSummary } from '$core/contract/bot.js';
  import type { Fault } from '$core/shape/fault.js';
  import { tell } from '../shared/acts.js';
  import { ApiError, send, sendFile } from '../shared/api.js';
  import FaultList from '../shared/FaultList.svelte';
  import FileButton from '../shared/FileButton.svelte';
  import { moment, percent } from '../shared/format.js';
  import NewName from '../shared/NewName.svelte';
  import NoticeLine from '../shared/NoticeLine.svelte';
  import ThemeButton from '../shared/ThemeButton.svelte';
  import { notices } from '../shared/notices.svelte.js';
  import { invalidateAll } from '$app/navigation';
  import Act from '../shared/Act.svelte';

  const { bots, cutShort }: { bots: BotSummary[]; cutShort: readonly string[] } = $props();

  /** How often the page asks how far an import is, in milliseconds. */
  const OFTEN = 250;

  let importing = $state<JobView | null>(null);
  let refused = $state<{ message: string; faults: Fault[] } | null>(null);

  async function attempt(work: () => Promise<void>): Promise<boolean> {
    try {
      await work();
      return true;
    } catch (error) {
      tell(error);
      return false;
    }
  }

  const create = (name: string) =>
    attempt(async () => {
      const { id } = await send<{ id: number }>('POST', '/api/bots', { name });
      await goto(`/bots/${id}/teach`);
    });

  async function bringIn(file: File) {
    refused = null;
    try {
      let { job } = await sendFile<{ job: JobView }>('/api/bots/import?watch', file);
      while (job.state === 'running') {
        importing = job;
        await new Promise((resolve) => setTimeout(resolve, OFTEN));
        job = await send<JobView>('GET', `/api/bots/${job.botId}/jobs/${job.id}`);
      }
      importing = job;
      if (job.state === 'done') await goto(`/bots/${job.botId}/teach`);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      refused = { message: `${file.name}: ${error.message}`, faults: error.faults };
    }
  }

  const duplicate = (id: number) =>
    attempt(async () => {
      await send('POST', `/api/bots/${id}/duplicate`);
      await invalidateAll();
    });

  const remove = (bot: BotSummary) =>
    attempt(async () => {
      await send('DELETE', `/api/bots/${bot.id}`);
      await invalidateAll();
      notices.say('success', `Deleted ${bot.name}.`, { label: 'Undo', run: () => void restore(bot.id) });
    });

  const restore = (id: number) =>
    attempt(async () => {
      await send('POST', `/api/bots/${id}/restore`);
      await invalidateAll();
    });

  const headers = [
    { key: 'name', value: 'Bot' },
    { key: 'intents', value: 'Intents' },
    { key: 'utterances', value: 'Utterances' },
    { key: 'forms', value: 'Forms' },
    { key: 'heldOut', value: 'Held out' },
    { key: 'proved', value: 'Last test' },
    { key: 'missing', value: 'Missing' },
    { key: 'updatedAt', value: 'Last changed' },
    { key: 'acts', value: 'Acts', sort: false as const },
  ] as const;
  const rows = $derived(bots.map((bot) => ({ ...bot, acts: '' })));
  const botOf = (id: number): BotSummary => bots.find((bot) => bot.id === id)!;
</script>

<header>
  <strong>Reed Gate</strong>
  <span class="notice"><NoticeLine /></span>
  <ThemeButton />
</header>
<main>
  <div class="head">
    <h1>Bots</h1>
    <div class="make">
      <FileButton label="Import a bot file" accept={['.json', '.yaml', '.yml']} choose={bringIn} firm />
      <NewName
        look="main"
        text="New bot"
        label="Name of the new bot"
        action="Make the bot"
        placeholder="What you and your colleagues call it"
        submit={create}
      />
    </div>
  </div>
  {#if refused}<FaultList {...refused} close={() => (refused = null)} />{/if}
  {#if importing && importing.state !== 'done'}
    <JobProgress
      job={importing}
      label="Bringing in the bot"
      unit="rows written"
      stopped="Stopped. Nothing of it is kept."
      close={() => (importing = null)}
    />
  {/if}
  {#each cutShort as name, index (index)}
    <InlineNotification
      kind="info"
      lowContrast
      subtitle="The import of {name} was cut short when the program ended, and nothing of it is kept. Bring it in again."
    />
  {/each}
  {#if bots.length === 0}
    <p class="empty">There is no bot yet. Make one, or import a bot file.</p>
  {:else}
    <DataTable size="compact" sortable {headers} {rows}>
      <svelte:fragment slot="cell" let:row let:cell>
        {@const bot = botOf(row.id)}
        {#if cell.key === 'name'}
          <a href="/bots/{bot.id}/teach">{bot.name}</a>
        {:else if cell.key === 'heldOut' || cell.key === 'proved'}
          <span class="figure">{percent(cell.value)}</span>
        {:else if cell.key === 'missing'}
          <span class:lacks={bot.missing}
            >{bot.missing === null ? '–' : bot.missing === 0 ? 'nothing' : bot.missing}</span
          >
        {:else if cell.key === 'updatedAt'}
          {moment(bot.updatedAt)}
        {:else if cell.key === 'acts'}
          <span class="acts">
            <Act href="/api/bots/{bot.id}/file?format=yaml" download label="Export {bot.name} as YAML">YAML</Act>
            <Act href="/api/bots/{bot.id}/file?format=json" download label="Export {bot.name} as JSON">JSON</Act>
            <Act label="Duplicate {bot.name}" onclick={() => duplicate(bot.id)}>Duplicate</Act>
            <Act icon="delete" look="grave" label="Delete {bot.name}" onclick={() => remove(bot)} />
          </span>
        {:else}
          <span class="figure">{cell.value}</span>
        {/if}
      </svelte:fragment>
    </DataTable>
  {/if}
</main>

<style>
  header {
    display: flex;
    gap: 1rem;
    align-items: center;
    padding: 0.5rem 1rem;
    border-bottom: 1px solid var(--line);
  }

  main {
    max-width: 76rem;
    margin: 0 auto;
    padding: 1.5rem 1rem;
  }

  .head {
    display: flex;
    justify-content: space-between;
    align-items: center;
    margin-bottom: 1rem;
  }

  .notice {
    flex: 1;
    min-width: 0;
  }

  .make,
  .acts {
    display: flex;
    align-items: center;
    gap: 0.5rem;
  }

  .acts {
    gap: 0;
    /* The words of the acts begin where their head does. */
    margin-left: -0.45rem;
  }

  .lacks {
    color: var(--none);
  }

  .empty {
    padding: 2rem 0;
  }
</style>
