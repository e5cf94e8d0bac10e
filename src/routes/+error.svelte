<script lang="ts">
  import { page } from '$app/state';
</script>

<svelte:head><title>Reed Gate</title></svelte:head>

<main>
  <h1>{page.status === 404 ? 'Not here' : 'That did not work'}</h1>
  <p>{page.error?.message}</p>
  {#if page.error?.requestNumber}<p class="soft">Request {page.error.requestNumber}</p>{/if}
  <p><a href="/">All bots</a></p>
</main>

<style>
  main {
    padding: 3rem;
    max-width: 40rem;
    display: grid;
    gap: 0.75rem;
  }
</style>
