<script lang="ts">
  import EntitiesStage from '$ui/teach/EntitiesStage.svelte';
  import type { PageProps } from './$types';

  const { data }: PageProps = $props();
</script>

<svelte:head><title>Entities · {data.frame.bot.name} · Reed Gate</title></svelte:head>

<EntitiesStage botId={data.frame.bot.id} view={data.view} />
