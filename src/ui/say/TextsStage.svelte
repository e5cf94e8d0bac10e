<script lang="ts">
  import type { Localised } from '$core/bot/document.js';
  import type { TextsView } from '$core/contract/say.js';
  import { ENGINE_TEXTS, insertsForText, TEXT_NAMES, type TextName } from '$core/say/engineTexts.js';
  import { edit, keepEdit } from '../shared/acts.js';
  import Notes from '../shared/Notes.svelte';
  import Desks from './Desks.svelte';
  import NoMatch from './NoMatch.svelte';
  import SayList from './SayList.svelte';
  import TextLines from './TextLines.svelte';
  import Act from '../shared/Act.svelte';

  /** Every sentence that the bot says of its own accord, with its default. */
  const { botId, view }: { botId: number; view: TextsView } = $props();

  const ownOf = (name: TextName): Localised | undefined => view.texts[name];
  const keep = (name: TextName, to: Localised | null) => keepEdit(botId, { do: 'changeText', text: name, to });
</script>

<div class="stage">
  <SayList {botId} list={view} current={null} />
  <section class="work" aria-label="Sentences of the bot">
    <h1>Sentences of the bot</h1>
    <NoMatch {botId} {view} />
    <table class="sheet">
      <thead>
        <tr>
          <th scope="col">Said when</th>
          <th scope="col">Words, a line for each try; the default where there are none</th>
          <th scope="col"><span class="unseen">Acts</span></th>
        </tr>
      </thead>
      <tbody>
        {#each TEXT_NAMES as name (name)}
          <tr>
            <td class="when">{ENGINE_TEXTS[name].when}</td>
            <td>
              <TextLines
                label="Words for: {ENGINE_TEXTS[name].when}"
                hideLabel
                text={ownOf(name)}
                language={view.language}
                placeholder={view.defaults[name]}
                inserts={insertsForText(name)}
                keep={(to) => keep(name, to)}
              />
            </td>
            <td>
              {#if ownOf(name) !== undefined}
                <Act
                  label="Say the default for: {ENGINE_TEXTS[name].when}"
                  onclick={() => edit(botId, { do: 'changeText', text: name, to: null })}>Default</Act
                >
              {/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    <Desks {botId} desks={view.allDesks} language={view.language} />
  </section>
  <aside class="margin" aria-label="Margin">
    <h2>Margin</h2>
    {#if view.notes.length === 0}<p class="soft">Nothing to remark.</p>{/if}
    <Notes {botId} notes={view.notes} />
    <p class="soft about">
      A sentence that has no words of its own says its default, which stands in grey. What may be put in stands under
      “Insert”.
    </p>
  </aside>
</div>

<style>
  h1 {
    padding: 0.6rem 0.75rem;
  }

  .when {
    width: 15rem;
    padding-top: 0.45rem;
    padding-left: 0.75rem;
  }

  .about {
    margin-top: 1rem;
  }
</style>
