<script lang="ts">
  import { InlineNotification, NotificationActionButton } from 'carbon-components-svelte';
  import { notices } from './notices.svelte.js';

  /** The message that is shown now, where it covers nothing. */
  const notice = $derived(notices.shown);
</script>

<div class="notices">
  {#if notice}
    {#key notice.id}
      <InlineNotification
        kind={notice.kind}
        lowContrast
        role={notice.kind === 'error' ? 'alert' : 'status'}
        subtitle={notice.text}
        closeButtonDescription="Close the message"
        on:close={() => notices.close(notice.id)}
      >
        <svelte:fragment slot="actions">
          {#if notice.action}
            <NotificationActionButton
              on:click={() => {
                notice.action?.run();
                notices.close(notice.id);
              }}>{notice.action.label}</NotificationActionButton
            >
          {/if}
        </svelte:fragment>
      </InlineNotification>
    {/key}
  {/if}
</div>

<style>
  .notices {
    min-width: 0;
  }
</style>
