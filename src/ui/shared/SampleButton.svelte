<script lang="ts">
  import Act from './Act.svelte';
  import { edit } from './acts.js';
  import type { Sample } from './samples.js';

  /** Makes a sample; each of its acts can be undone. */
  const { botId, sample }: { botId: number; sample: Sample } = $props();

  let busy = $state(false);

  async function make() {
    busy = true;
    for (const act of sample.acts) if (!(await edit(botId, act))) break;
    busy = false;
  }
</script>

<Act look="firm" disabled={busy} onclick={make}>{sample.words}</Act>
