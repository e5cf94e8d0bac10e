<script lang="ts">
  import { goto } from '$app/navigation';
  import type { BotSummary } from '$core/contract/bot.js';
  import type { Fault } from '$core/shape/fault.js';
  import { tell } from '../shared/acts.js';
  import { ApiError, send, sendFile } from '../shared/api.js';
  import FaultList from '../shared/FaultList.svelte';
  import FileButton from '../shared/FileButton.svelte';
  import { moment } from '../shared/format.js';
  import NameDialog from '../shared/NameDialog.svelte';
  import ThemeButton from '../shared/ThemeButton.svelte';
  import { toasts } from '../shared/toasts.svelte.js';
  import { invalidateAll } from '$app/navigation';

  const { bots }: { bots: BotSummary[] } = $props();

  let naming = $state(false);
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
      const { id } = await sendFile<{ id: number }>('/api/bots/import', file);
      await goto(`/bots/${id}/teach`);
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
      toasts.say('success', `Deleted ${bot.name}.`, { label: 'Undo', run: () => void restore(bot.id) });
    });

  const restore = (id: number) =>
    attempt(async () => {
      await send('POST', `/api/bots/${id}/restore`);
      await invalidateAll();
    });
</script>

<header>
  <strong>Reed Gate</strong>
  <ThemeButton />
</header>
<main>
  <div class="head">
    <h1>Bots</h1>
    <div>
      <FileButton label="Import a bot file" accept=".json,.yaml,.yml" choose={bringIn} firm />
      <button class="solid" onclick={() => (naming = true)}>New bot</button>
    </div>
  </div>
  {#if refused}<FaultList {...refused} close={() => (refused = null)} />{/if}
  {#if bots.length === 0}
    <p class="empty">
      There is no bot yet. Make a <button class="quiet firm" onclick={() => (naming = true)}>new bot</button>, or import
      a bot file.
    </p>
  {:else}
    <table class="sheet">
      <thead>
        <tr>
          <th scope="col">Bot</th>
          <th scope="col" class="number">Intents</th>
          <th scope="col" class="number">Utterances</th>
          <th scope="col" class="number">Forms</th>
          <th scope="col">Last changed</th>
          <th scope="col"><span class="unseen">Acts</span></th>
        </tr>
      </thead>
      <tbody>
        {#each bots as bot (bot.id)}
          <tr>
            <td><a href="/bots/{bot.id}/teach">{bot.name}</a></td>
            <td class="number">{bot.intents}</td>
            <td class="number">{bot.utterances}</td>
            <td class="number">{bot.forms}</td>
            <td>{moment(bot.updatedAt)}</td>
            <td class="acts">
              <a
                class="quiet"
                href="/api/bots/{bot.id}/file?format=yaml"
                download
                aria-label="Export {bot.name} as YAML">Export YAML</a
              >
              <a
                class="quiet"
                href="/api/bots/{bot.id}/file?format=json"
                download
                aria-label="Export {bot.name} as JSON">JSON</a
              >
              <button class="quiet" aria-label="Duplicate {bot.name}" onclick={() => duplicate(bot.id)}
                >Duplicate</button
              >
              <button class="quiet danger" aria-label="Delete {bot.name}" onclick={() => remove(bot)}>Delete</button>
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</main>
<NameDialog
  bind:open={naming}
  heading="New bot"
  label="Name"
  action="Make the bot"
  hint="What you and your colleagues call it. It can be changed."
  submit={create}
/>

<style>
  header {
    display: flex;
    justify-content: space-between;
    align-items: center;
    padding: 0.5rem 1rem;
    border-bottom: 1px solid var(--line);
  }

  main {
    max-width: 64rem;
    margin: 0 auto;
    padding: 1.5rem 1rem;
  }

  .head {
    display: flex;
    justify-content: space-between;
    align-items: center;
    margin-bottom: 1rem;
  }

  td {
    padding: 0.5rem 0.4rem;
  }

  .acts {
    text-align: right;
    white-space: nowrap;
  }

  .acts a {
    text-decoration: none;
  }

  .empty {
    padding: 2rem 0;
  }
</style>
