<script lang="ts">
  /** Ways to look at the same thing, of which one is shown. */
  const { label, tabs }: { label: string; tabs: readonly { href: string; text: string; current: boolean }[] } =
    $props();
</script>

<nav aria-label={label}>
  {#each tabs as { href, text, current } (href)}
    <a {href} aria-current={current ? 'page' : undefined}>{text}</a>
  {/each}
</nav>

<style>
  nav {
    display: flex;
    gap: 1rem;
  }

  a {
    padding-bottom: 0.15rem;
    color: inherit;
    text-decoration: none;
    border-bottom: 2px solid transparent;
  }

  a[aria-current] {
    font-weight: 600;
    border-bottom-color: var(--reed);
  }
</style>
