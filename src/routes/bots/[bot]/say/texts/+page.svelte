<script lang="ts">
  import TextsStage from '$ui/say/TextsStage.svelte';
  import type { PageProps } from './$types';

  const { data }: PageProps = $props();
</script>

<svelte:head><title>Sentences · {data.frame.bot.name} · Reed Gate</title></svelte:head>

<TextsStage botId={data.frame.bot.id} view={data.view} />
