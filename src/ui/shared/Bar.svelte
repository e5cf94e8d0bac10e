<script lang="ts">
  /** A small bar beside a figure. @prop value 0..1 */
  const { value, tone = 'reed' }: { value: number | null; tone?: 'reed' | 'asked' | 'none' } = $props();
</script>

<span class="bar" aria-hidden="true"><span class={tone} style:width="{Math.round((value ?? 0) * 100)}%"></span></span>

<style>
  .bar {
    display: inline-block;
    width: 3rem;
    height: 0.45rem;
    background: var(--line);
    vertical-align: middle;
  }

  .bar span {
    display: block;
    height: 100%;
    background: var(--reed);
  }

  .bar .asked {
    background: var(--asked);
  }

  .bar .none {
    background: var(--none);
  }
</style>
