<script lang="ts">
  import BotList from '$ui/bots/BotList.svelte';
  import type { PageProps } from './$types';

  const { data }: PageProps = $props();
</script>

<svelte:head><title>Bots · Reed Gate</title></svelte:head>

<BotList bots={data.bots} cutShort={data.cutShort} />
