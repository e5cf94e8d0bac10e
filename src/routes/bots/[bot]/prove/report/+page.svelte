<script lang="ts">
  import Report from '$ui/prove/Report.svelte';
  import type { PageProps } from './$types';

  const { data }: PageProps = $props();
</script>

<svelte:head><title>Report · {data.set.name} · {data.frame.bot.name} · Reed Gate</title></svelte:head>

<Report bot={data.frame.bot} set={data.set} run={data.run} comparison={data.comparison} />
