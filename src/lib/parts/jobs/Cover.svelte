<script lang="ts">
  import LightSwitch from '../LightSwitch.svelte';
  import Mark from '../Mark.svelte';
</script>

<header>
  <Mark width="5rem" />
  <div>
    <p class="name">Hekto</p>
    <p class="line">Plan the circuits, prove the work, find the fault. All of it on this device.</p>
  </div>
  <LightSwitch />
</header>

<style>
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0.75rem 1.25rem;
    padding: 1rem clamp(1rem, 4vw, 3rem);
    background: var(--cover);
    color: var(--cover-ink);
    border-bottom: 5px solid var(--copper);
  }
  div {
    flex: 1 1 14rem;
  }
  .name {
    font-size: 2rem;
    font-weight: 800;
    line-height: 1;
  }
  .line {
    color: var(--cover-quiet);
  }
  /* On a phone the first tile counts. */
  @media (max-width: 520px) {
    header {
      flex-wrap: nowrap;
      padding-block: 0.5rem;
    }
    .line {
      display: none;
    }
  }
</style>
