<script lang="ts">
  import TryStage from '$ui/try/TryStage.svelte';
  import type { PageProps } from './$types';

  const { data }: PageProps = $props();
</script>

<svelte:head><title>Try · {data.frame.bot.name} · Reed Gate</title></svelte:head>

<TryStage botId={data.frame.bot.id} view={data.view} testSets={data.frame.testSets} />
