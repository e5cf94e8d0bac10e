<script lang="ts">
  import type { SettingsChange } from '$core/bot/acts/index.js';
  import type { SettingsView } from '$core/contract/bot.js';
  import { splitParts } from '$core/bot/pasted.js';
  import { keepEdit } from '../shared/acts.js';
  import Field from '../shared/Field.svelte';

  /** What a bot is called, where it is and which languages it speaks. */
  const { botId, view }: { botId: number; view: SettingsView } = $props();

  const keep = (to: SettingsChange) => keepEdit(botId, { do: 'changeSettings', to });
</script>

<section aria-label="Settings of the bot">
  <h1>Settings of the bot</h1>
  <div class="fields">
    <Field label="Name" value={view.name} keep={(name) => keep({ name: name.trim() })} />
    <Field
      label="Languages"
      value={view.languages.join(', ')}
      hint="Codes such as en or es, parted by commas; the first is the main one."
      keep={(text) => keep({ languages: splitParts(text) })}
    />
    <Field
      label="Time zone"
      value={view.timeZone}
      hint="Such as Europe/London. “Tomorrow” and “at four” are reckoned there."
      keep={(timeZone) => keep({ timeZone: timeZone.trim() })}
    />
    <Field
      label="Country"
      value={view.region}
      hint="Two letters, such as GB: whether 3/4 is in April, and how telephone numbers are read."
      keep={(region) => keep({ region: region.trim().toUpperCase() })}
    />
  </div>
</section>

<style>
  section {
    padding: 0.75rem;
    overflow-y: auto;
    height: 100%;
  }

  .fields {
    display: grid;
    gap: 1rem;
    max-width: 30rem;
    margin-top: 1rem;
  }
</style>
