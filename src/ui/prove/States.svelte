<script lang="ts">
  import type { HistoryPoint, KeptState } from '$core/contract/prove.js';
  import { tell } from '../shared/acts.js';
  import { send } from '../shared/api.js';
  import Act from '../shared/Act.svelte';
  import Choice from '../shared/Choice.svelte';
  import { moment } from '../shared/format.js';
  import { refresh } from '../shared/live.svelte.js';
  import NewName from '../shared/NewName.svelte';
  import Term from '../shared/Term.svelte';
  import { TERMS } from '../shared/terms.js';

  /** The bot as it was kept by name, to be tested beside the bot as it is. */
  const {
    botId,
    states,
    points,
    run,
  }: {
    botId: number;
    states: KeptState[];
    /** The acts that stand, the newest first. */
    points: HistoryPoint[];
    /** Runs the test set with a state. */
    run: (state: number) => unknown;
  } = $props();

  /** The act that the bot is kept without; empty: as it is. */
  let before = $state('');
  const AS_IT_IS = { value: '', text: 'as it is' };
  const options = $derived([
    AS_IT_IS,
    ...points.map(({ number, label, at }) => ({
      value: String(number),
      text: `as it was before: ${label} (${moment(at)})`,
    })),
  ]);

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

  const keep = (name: string) =>
    attempt(async () => {
      const point = before === '' ? {} : { before: Number(before) };
      await send('POST', `/api/bots/${botId}/states`, { name, ...point });
      before = '';
    });
  const forget = (id: number) => attempt(() => send('DELETE', `/api/bots/${botId}/states/${id}`));
</script>

<section aria-label="Kept states">
  <div class="head">
    <h2>Kept states</h2>
    <NewName text="Keep the bot" label="Name of the state" action="Keep it" submit={keep} />
    {#if points.length > 0}
      <Choice label="The state that is kept" value={before} {options} keep={(point) => (before = point)} />
    {/if}
  </div>
  {#if states.length === 0}
    <p class="soft">
      None yet. Keep the bot as it is before a change, or as it was, and this set can be run with both.
    </p>
  {:else}
    <ul>
      {#each states as { id, name, revision, keptAt, before: without } (id)}
        <li>
          <strong>{name}</strong>
          <span class="soft"
            ><Term means={TERMS.change}>change</Term>
            {revision}{without === null ? '' : ` without “${without}” and what came after`}, kept {moment(keptAt)}</span
          >
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
