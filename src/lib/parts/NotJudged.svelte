<script lang="ts">
  import { NOT_JUDGED } from '#core/handover/looks.ts';
</script>

<ul>
  {#each NOT_JUDGED as { what, section } (what)}
    <li>{what} <span class="section">{section}</span></li>
  {/each}
</ul>

<style>
  ul {
    columns: 22rem 2;
    column-gap: 2rem;
  }
  li {
    break-inside: avoid;
    padding: 0.15rem 0;
  }
  .section {
    white-space: normal;
  }
</style>
