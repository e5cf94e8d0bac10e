<script lang="ts">
  import type { SettingsChange } from '$core/bot/acts/index.js';
  import type { SettingsView } from '$core/contract/bot.js';
  import { splitParts } from '$core/bot/pasted.js';
  import { keepEdit } from '../shared/acts.js';
  import Cell from '../shared/Cell.svelte';

  /** What a bot is called, where it is and which languages it speaks. */
  const { botId, view }: { botId: number; view: SettingsView } = $props();

  const keep = (to: SettingsChange) => keepEdit(botId, { do: 'changeSettings', to });
</script>

<section aria-label="Settings of the bot">
  <h1>Settings of the bot</h1>
  <dl>
    <dt><label for="name">Name</label></dt>
    <dd><Cell id="name" value={view.name} keep={(name) => keep({ name: name.trim() })} /></dd>
    <dt><label for="languages">Languages</label></dt>
    <dd>
      <Cell id="languages" value={view.languages.join(', ')} keep={(text) => keep({ languages: splitParts(text) })} />
      <p class="soft">Codes such as en or es, parted by commas; the first is the main one.</p>
    </dd>
    <dt><label for="timeZone">Time zone</label></dt>
    <dd>
      <Cell id="timeZone" value={view.timeZone} keep={(timeZone) => keep({ timeZone: timeZone.trim() })} />
      <p class="soft">Such as Europe/London. “Tomorrow” and “at four” are reckoned there.</p>
    </dd>
    <dt><label for="region">Country</label></dt>
    <dd>
      <Cell id="region" value={view.region} keep={(region) => keep({ region: region.trim().toUpperCase() })} />
      <p class="soft">Two letters, such as GB: whether 3/4 is in April, and how telephone numbers are read.</p>
    </dd>
  </dl>
</section>

<style>
  section {
    padding: 0.75rem;
    overflow-y: auto;
    height: 100%;
  }

  dl {
    display: grid;
    grid-template-columns: 8rem minmax(0, 26rem);
    gap: 0.75rem 1rem;
    margin-top: 1rem;
    align-items: baseline;
  }

  dd {
    margin: 0;
  }

  dd :global(input) {
    border-color: var(--line-strong);
  }

  dd p {
    padding: 0.15rem 0.35rem;
    font-size: 0.8125rem;
  }
</style>
