<script lang="ts">
  import type { NoMatchChange } from '$core/bot/acts/index.js';
  import type { TextsView } from '$core/contract/say.js';
  import { edit, keepEdit } from '../shared/acts.js';
  import Choice from '../shared/Choice.svelte';
  import NumberField from '../shared/NumberField.svelte';
  import TextLines from './TextLines.svelte';

  /** The greeting, and what is said when nothing was understood. */
  const { botId, view }: { botId: number; view: TextsView } = $props();

  const setNoMatch = (to: NoMatchChange) => keepEdit(botId, { do: 'changeNoMatch', to });
</script>

<div class="texts">
  <TextLines
    label="Greeting"
    text={view.greeting}
    language={view.language}
    keep={(greeting) => keepEdit(botId, { do: 'changeSettings', to: { greeting: greeting ?? [] } })}
  />
  <TextLines
    label="No match"
    text={view.noMatch.prompts}
    language={view.language}
    placeholder="Said when nothing was understood, a line for each try"
    keep={(prompts) => setNoMatch({ prompts: prompts ?? [] })}
  />
  <div class="row">
    <span class="soft">Tries</span>
    <NumberField
      label="Failed tries in a row"
      min={1}
      max={9}
      value={view.noMatch.tries}
      keep={(tries) => setNoMatch({ tries })}
    />
    <span class="soft">failed tries in a row, then to</span>
    <Choice
      value={view.noMatch.desk ?? ''}
      label="Desk after the last try"
      options={[{ value: '', text: 'no desk: give up' }, ...view.allDesks.map(({ name }) => name)]}
      keep={(desk) => edit(botId, { do: 'changeNoMatch', to: { desk: desk || null } })}
    />
  </div>
  <TextLines
    label="Give up"
    text={view.noMatch.giveUp}
    language={view.language}
    keep={(giveUp) => setNoMatch({ giveUp: giveUp ?? [] })}
  />
</div>

<style>
  .texts {
    display: grid;
    gap: 0.4rem;
    padding: 0 0.75rem 0.75rem;
  }

  .row {
    display: grid;
    grid-template-columns: 6.5rem 4rem auto 12rem;
    justify-content: start;
    align-items: center;
    gap: 0.5rem;
  }
</style>
