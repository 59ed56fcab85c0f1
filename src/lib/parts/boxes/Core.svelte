<script lang="ts">
  import type { Color } from '#core/job/schema.ts';
  /** A conductor by its color, as it is seen. */
  let { color }: { color: Color } = $props();
</script>

<span class="core {color}" aria-hidden="true"></span>

<style>
  .core {
    display: inline-block;
    width: 0.8rem;
    height: 2.2rem;
    border: 2px solid var(--ink);
    border-radius: 4px;
    background: #222;
  }
  .red {
    background: #c62020;
  }
  .blue {
    background: #2353a8;
  }
  .white {
    background: #fff;
  }
  .gray {
    background: #9a9a9a;
  }
  .green {
    background: #1f7a3d;
  }
  .bare {
    background: #c9793b;
  }
  .yellow {
    background: #e3c317;
  }
  .orange {
    background: #e0761a;
  }
  .brown {
    background: #6b4226;
  }
  .purple {
    background: #6d3fa0;
  }
  .armor {
    background: repeating-linear-gradient(45deg, #8d959b 0 3px, #c9ced2 3px 6px);
  }
  .cloth {
    background: repeating-linear-gradient(45deg, #3a332a 0 4px, #6b5f4d 4px 8px);
  }
</style>
