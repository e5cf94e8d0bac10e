<script lang="ts">
  import type { Desk, NoMatchSettings } from '$core/bot/document.js';
  import type { SayView } from '$core/contract/say.js';
  import { edit } from '../shared/acts.js';
  import NameDialog from '../shared/NameDialog.svelte';
  import TextLines from './TextLines.svelte';

  /** What belongs to the whole bot: its greeting, what is said when nothing was understood, and the desks. */
  const { botId, view }: { botId: number; view: SayView } = $props();

  let adding = $state(false);

  const setNoMatch = (noMatch: NoMatchSettings) => edit(botId, { do: 'changeSettings', to: { noMatch } });
  const setDesks = (desks: Desk[], said?: string) => edit(botId, { do: 'changeDesks', desks }, said);

  function setNoMatchDesk(desk: string) {
    const { desk: _, ...rest } = view.noMatch;
    return setNoMatch(desk === '' ? rest : { ...view.noMatch, desk });
  }
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
      keep={(prompts) => setNoMatch({ ...view.noMatch, prompts: prompts ?? [] })}
    />
    <label class="row">
      <span class="soft">Tries</span>
      <input
        class="cell figure"
        type="number"
        min="1"
        max="9"
        value={view.noMatch.tries}
        onchange={(event) => setNoMatch({ ...view.noMatch, tries: event.currentTarget.valueAsNumber })}
      />
      <span class="soft">failed tries in a row, then to</span>
      <select
        class="cell"
        value={view.noMatch.desk ?? ''}
        aria-label="Desk after the last try"
        onchange={(event) => setNoMatchDesk(event.currentTarget.value)}
      >
        <option value="">no desk: give up</option>
        {#each view.desks as desk (desk.name)}<option value={desk.name}>{desk.name}</option>{/each}
      </select>
    </label>
    <TextLines
      label="Give up"
      text={view.noMatch.giveUp}
      language={view.language}
      keep={(giveUp) => setNoMatch({ ...view.noMatch, giveUp: giveUp ?? [] })}
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
      {#each view.desks as desk, index (desk.name)}
        <tr>
          <td class="name">{desk.name}</td>
          <td>
            <input
              class="cell"
              value={desk.description ?? ''}
              aria-label="What {desk.name} does"
              onchange={(event) =>
                setDesks(view.desks.with(index, { ...desk, description: event.currentTarget.value }))}
            />
          </td>
          <td>
            <TextLines
              label="Said when handing over to {desk.name}"
              hideLabel
              text={desk.handover}
              language={view.language}
              keep={(handover) => setDesks(view.desks.with(index, { ...desk, handover: handover ?? [] }))}
            />
          </td>
          <td>
            <button
              class="quiet danger"
              aria-label="Delete {desk.name}"
              onclick={() => setDesks(view.desks.toSpliced(index, 1), `Deleted the desk ${desk.name}.`)}>Delete</button
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
  submit={(name) => setDesks([...view.desks, { name }])}
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

  .row input,
  .row select {
    border-color: var(--line);
  }

  .name {
    padding-top: 0.45rem;
    width: 8rem;
  }
</style>
