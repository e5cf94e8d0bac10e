<script lang="ts">
  import { page } from '$app/state';
  import { TRIALS } from '$core/contract/trial.js';
  import TrialsStage from '$ui/prove/TrialsStage.svelte';
  import type { PageProps } from './$types';

  const { data }: PageProps = $props();

  const asked = $derived(page.url.searchParams.get('show'));
  const show = $derived(TRIALS.find((name) => name === asked) ?? TRIALS[0]);
</script>

<svelte:head><title>Trials · {data.frame.bot.name} · Reed Gate</title></svelte:head>

<TrialsStage botId={data.frame.bot.id} view={data.view} revision={data.frame.bot.revision} {show} />
