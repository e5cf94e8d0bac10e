<script lang="ts">
  import Settings from '$ui/settings/Settings.svelte';
  import type { PageProps } from './$types';

  const { data }: PageProps = $props();
</script>

<svelte:head><title>Settings · {data.frame.bot.name} · Reed Gate</title></svelte:head>

<Settings botId={data.frame.bot.id} view={data.view} />
