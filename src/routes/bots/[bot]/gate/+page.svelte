<script lang="ts">
  import GateStage from '$ui/gate/GateStage.svelte';
  import type { PageProps } from './$types';

  const { data }: PageProps = $props();
</script>

<svelte:head><title>Gate · {data.frame.bot.name} · Reed Gate</title></svelte:head>

<GateStage botId={data.frame.bot.id} view={data.view} revision={data.frame.bot.revision} />
