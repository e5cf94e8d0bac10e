<script lang="ts">
  import SayStage from '$ui/say/SayStage.svelte';
  import type { PageProps } from './$types';

  const { data }: PageProps = $props();
</script>

<svelte:head><title>Say · {data.frame.bot.name} · Reed Gate</title></svelte:head>

<SayStage botId={data.frame.bot.id} view={data.view} />
