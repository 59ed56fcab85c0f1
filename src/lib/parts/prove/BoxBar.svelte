<script lang="ts">
  import Act from '../Act.svelte';

  interface Props {
    name: string;
    where: string;
    go: (step: number) => void;
  }
  let { name, where, go }: Props = $props();
</script>

<!-- On a phone at the thumb. -->
<div class="which">
  <Act big onclick={() => go(-1)} label="Box before">‹</Act>
  <div>
    <p class="box-name">{name}</p>
    <p class="quiet">{where}</p>
  </div>
  <Act big kind="main" onclick={() => go(1)} label="Next box">Next ›</Act>
</div>

<style>
  .which {
    display: grid;
    grid-template-columns: auto 1fr auto;
    gap: 0.75rem;
    align-items: center;
    text-align: center;
  }
  .box-name {
    font-size: 2rem;
    font-weight: 800;
    line-height: 1;
  }
  @media (max-width: 760px) {
    .which {
      position: fixed;
      z-index: 5;
      inset: auto 0 0 0;
      padding: 0.4rem 0.5rem calc(0.4rem + env(safe-area-inset-bottom));
      background: var(--sheet);
      border-top: 2px solid var(--edge);
    }
  }
</style>
