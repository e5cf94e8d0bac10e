<script lang="ts">
  import type { NoMatchChange } from '$core/bot/edit.js';
  import type { SayView } from '$core/contract/say.js';
  import { edit } from '../shared/acts.js';
  import Cell from '../shared/Cell.svelte';
  import NameDialog from '../shared/NameDialog.svelte';
  import TextLines from './TextLines.svelte';

  /** What belongs to the whole bot: its greeting, what is said when nothing was understood, and the desks. */
  const { botId, view }: { botId: number; view: SayView } = $props();

  let adding = $state(false);

  const setNoMatch = (to: NoMatchChange) => edit(botId, { do: 'changeNoMatch', to });
</script>

<section id="no-match">
  <h2>Greeting and no match</h2>
  <div class="texts">
    <TextLines
      label="Greeting"
      text={view.greeting}
      language={view.language}
      keep={(greeting) => edit(botId, { do: 'changeSettings', to: { greeting: greeting ?? [] } })}
    />
    <TextLines
      label="No match"
      text={view.noMatch.prompts}
      language={view.language}
      placeholder="Said when nothing was understood, a line for each try"
      keep={(prompts) => setNoMatch({ prompts: prompts ?? [] })}
    />
    <label class="row">
      <span class="soft">Tries</span>
      <Cell
        look="figure"
        type="number"
        min="1"
        max="9"
        value={String(view.noMatch.tries)}
        keep={(tries) => setNoMatch({ tries: Number(tries) })}
      />
      <span class="soft">failed tries in a row, then to</span>
      <select
        class="cell"
        value={view.noMatch.desk ?? ''}
        aria-label="Desk after the last try"
        onchange={(event) => setNoMatch({ desk: event.currentTarget.value || null })}
      >
        <option value="">no desk: give up</option>
        {#each view.desks as desk (desk.name)}<option value={desk.name}>{desk.name}</option>{/each}
      </select>
    </label>
    <TextLines
      label="Give up"
      text={view.noMatch.giveUp}
      language={view.language}
      keep={(giveUp) => setNoMatch({ giveUp: giveUp ?? [] })}
    />
  </div>
  <h2>Desks</h2>
  <table class="sheet">
    <thead>
      <tr>
        <th scope="col">Desk</th>
        <th scope="col">What it does</th>
        <th scope="col">Said when handing over</th>
        <th scope="col"><span class="unseen">Acts</span></th>
      </tr>
    </thead>
    <tbody>
      {#each view.desks as desk (desk.name)}
        <tr>
          <td class="name">{desk.name}</td>
          <td>
            <Cell
              value={desk.description ?? ''}
              label="What {desk.name} does"
              keep={(description) => edit(botId, { do: 'changeDesk', name: desk.name, to: { description } })}
            />
          </td>
          <td>
            <TextLines
              label="Said when handing over to {desk.name}"
              hideLabel
              text={desk.handover}
              language={view.language}
              keep={(handover) => edit(botId, { do: 'changeDesk', name: desk.name, to: { handover } })}
            />
          </td>
          <td>
            <button
              class="quiet danger"
              aria-label="Delete {desk.name}"
              onclick={() => edit(botId, { do: 'deleteDesk', name: desk.name }, `Deleted the desk ${desk.name}.`)}
              >Delete</button
            >
          </td>
        </tr>
      {/each}
      <tr><td colspan="4"><button class="quiet firm" onclick={() => (adding = true)}>Add a desk</button></td></tr>
    </tbody>
  </table>
</section>
<NameDialog
  bind:open={adding}
  heading="New desk"
  label="Name"
  action="Add the desk"
  hint="A team that conversations can be handed to."
  submit={(name) => edit(botId, { do: 'addDesk', name })}
/>

<style>
  section {
    border-top: 1px solid var(--line-strong);
    padding: 0.75rem;
    margin-top: 0.5rem;
    display: grid;
    gap: 0.5rem;
  }

  .texts {
    display: grid;
    gap: 0.4rem;
  }

  .row {
    display: grid;
    grid-template-columns: 6.5rem 4rem auto 12rem;
    justify-content: start;
    align-items: baseline;
    gap: 0.5rem;
  }

  .row :global(input),
  .row select {
    border-color: var(--line);
  }

  .name {
    padding-top: 0.45rem;
    width: 8rem;
  }
</style>
