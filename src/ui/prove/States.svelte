<script lang="ts">
  import type { KeptState } from '$core/contract/prove.js';
  import { tell } from '../shared/acts.js';
  import { send } from '../shared/api.js';
  import Act from '../shared/Act.svelte';
  import { moment } from '../shared/format.js';
  import { refresh } from '../shared/live.svelte.js';
  import NewName from '../shared/NewName.svelte';
  import Term from '../shared/Term.svelte';
  import { TERMS } from '../shared/terms.js';

  /** The bot as it was kept by name, to be tested beside the bot as it is. */
  const {
    botId,
    states,
    run,
  }: { botId: number; states: KeptState[]; /** Runs the test set with a state. */ run: (state: number) => unknown } =
    $props();

  async function attempt(work: () => Promise<unknown>): Promise<boolean> {
    try {
      await work();
      await refresh();
      return true;
    } catch (error) {
      tell(error);
      return false;
    }
  }

  const keep = (name: string) => attempt(() => send('POST', `/api/bots/${botId}/states`, { name }));
  const forget = (id: number) => attempt(() => send('DELETE', `/api/bots/${botId}/states/${id}`));
</script>

<section aria-label="Kept states">
  <div class="head">
    <h2>Kept states</h2>
    <NewName text="Keep the bot as it is" label="Name of the state" action="Keep it" submit={keep} />
  </div>
  {#if states.length === 0}
    <p class="soft">None yet. Keep the bot before a change, and this set can be run with both.</p>
  {:else}
    <ul>
      {#each states as { id, name, revision, keptAt } (id)}
        <li>
          <strong>{name}</strong>
          <span class="soft"><Term means={TERMS.change}>change</Term> {revision}, kept {moment(keptAt)}</span>
          <Act look="firm" onclick={() => run(id)}>Run the set with it</Act>
          <Act icon="delete" look="grave" label="Forget the state {name}" onclick={() => forget(id)} />
        </li>
      {/each}
    </ul>
  {/if}
</section>

<style>
  section {
    margin-top: 1rem;
  }

  .head,
  li {
    display: flex;
    gap: 0.75rem;
    align-items: center;
  }

  li {
    padding-block: 0.15rem;
    border-bottom: 1px solid var(--line);
  }
</style>
