<script lang="ts">
  import type { Word } from '@refectum/core/checks';

  interface Props {
    word: Word;
    /** Side of the square it is drawn in, px. */
    size?: number;
    /** Drawn inside another drawing, at this place, instead of on its own. */
    at?: { x: number; y: number };
  }
  const { word, size = 16, at }: Props = $props();
</script>

{#snippet shape()}
  {#if word === 'sound'}
    <circle cx="8" cy="8" r="6.5" class="fill-success" />
  {:else if word === 'failed'}
    <rect x="1.5" y="1.5" width="13" height="13" class="fill-error" />
    <path d="M4.5 4.5 11.5 11.5M11.5 4.5 4.5 11.5" class="stroke-error-content" stroke-width="2" fill="none" />
  {:else if word === 'doubtful'}
    <path d="M8 .8 15.2 8 8 15.2.8 8Z" class="fill-base-100 stroke-warning" stroke-width="1.5" />
    <path d="M8 .8V15.2L.8 8Z" class="fill-warning" />
  {:else if word === "can't tell"}
    <circle cx="8" cy="8" r="6.5" class="fill-base-100 stroke-info" stroke-width="1.5" stroke-dasharray="3 2" />
    <path d="M5 8h6" class="stroke-info" stroke-width="2" />
  {:else}
    <circle cx="8" cy="8" r="4" class="fill-base-100 stroke-secondary" stroke-width="1.2" />
  {/if}
{/snippet}

{#if at}
  <g transform="translate({at.x - size / 2} {at.y - size / 2}) scale({size / 16})">{@render shape()}</g>
{:else}
  <svg width={size} height={size} viewBox="0 0 16 16" aria-hidden="true" class="inline-block shrink-0">
    {@render shape()}
  </svg>
{/if}
