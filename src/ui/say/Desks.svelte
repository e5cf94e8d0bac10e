<script lang="ts">
  import type { Desk } from '$core/bot/document.js';
  import { edit, keepEdit } from '../shared/acts.js';
  import Cell from '../shared/Cell.svelte';
  import NewName from '../shared/NewName.svelte';
  import TextLines from './TextLines.svelte';
  import Act from '../shared/Act.svelte';

  /** The teams that conversations can be handed to. */
  const { botId, desks, language }: { botId: number; desks: Desk[]; language: string } = $props();
</script>

<section>
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
      {#each desks as desk (desk.name)}
        <tr>
          <td class="name">{desk.name}</td>
          <td>
            <Cell
              value={desk.description ?? ''}
              label="What {desk.name} does"
              keep={(description) => keepEdit(botId, { do: 'changeDesk', name: desk.name, to: { description } })}
            />
          </td>
          <td>
            <TextLines
              label="Said when handing over to {desk.name}"
              hideLabel
              text={desk.handover}
              {language}
              keep={(handover) => keepEdit(botId, { do: 'changeDesk', name: desk.name, to: { handover } })}
            />
          </td>
          <td>
            <Act
              icon="delete"
              look="grave"
              label="Delete {desk.name}"
              onclick={() => edit(botId, { do: 'deleteDesk', name: desk.name }, `Deleted the desk ${desk.name}.`)}
            />
          </td>
        </tr>
      {/each}
      <tr>
        <td colspan="4">
          <NewName
            text="Add a desk"
            label="Name of the new desk"
            action="Add the desk"
            placeholder="A team of people"
            submit={(name) => edit(botId, { do: 'addDesk', name })}
          />
        </td>
      </tr>
    </tbody>
  </table>
</section>

<style>
  section {
    padding: 0.75rem;
    display: grid;
    gap: 0.5rem;
  }

  .name {
    padding-top: 0.45rem;
    width: 8rem;
  }
</style>
