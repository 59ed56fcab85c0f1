<script lang="ts">
  /** The mark of Hekto: a run that steps through two boxes. */
  let { width = '3.4rem' }: { width?: string } = $props();
</script>

<svg viewBox="0 0 64 40" style:width aria-hidden="true">
  <path d="M4 28h18V12h20v16h18" fill="none" stroke="var(--copper)" stroke-width="6" />
  <circle cx="22" cy="12" r="6" fill="var(--cover-ink)" />
  <circle cx="42" cy="28" r="6" fill="var(--cover-ink)" />
</svg>
