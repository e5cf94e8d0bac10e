<script lang="ts">
  import { page } from '$app/state';
  import ProveStage from '$ui/prove/ProveStage.svelte';
  import type { PageProps } from './$types';

  const { data }: PageProps = $props();

  const asked = $derived(page.url.searchParams.get('show'));
  const show = $derived(asked === 'curves' || asked === 'lines' || asked === 'runs' ? asked : 'result');
</script>

<svelte:head><title>Prove · {data.frame.bot.name} · Reed Gate</title></svelte:head>

<ProveStage
  botId={data.frame.bot.id}
  view={data.view}
  revision={data.frame.bot.revision}
  intents={data.frame.intents}
  {show}
/>
