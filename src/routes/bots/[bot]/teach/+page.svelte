<script lang="ts">
  import TeachStage from '$ui/teach/TeachStage.svelte';
  import type { PageProps } from './$types';

  const { data }: PageProps = $props();
</script>

<svelte:head><title>Teach · {data.frame.bot.name} · Reed Gate</title></svelte:head>

<TeachStage botId={data.frame.bot.id} view={data.view} />
