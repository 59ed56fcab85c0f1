<script lang="ts">
  interface Props {
    label: string;
    checked: boolean;
    set: (checked: boolean) => unknown;
    hint?: string;
    /** For a glove, where the work is at a box. */
    big?: boolean;
  }
  let { label, checked, set, hint = '', big = false }: Props = $props();
</script>

<label class="check" class:big>
  <input type="checkbox" {checked} onchange={(e) => set(e.currentTarget.checked)} />
  <span
    >{label}{#if hint}<span class="quiet">&nbsp;{hint}</span>{/if}</span
  >
</label>

<style>
  .check {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0.5rem;
    align-items: center;
    min-height: 36px;
    font-weight: 600;
    font-size: 0.95rem;
  }
  .quiet {
    font-weight: 400;
  }
  input {
    width: 1.25rem;
    height: 1.25rem;
    accent-color: var(--accent);
  }
  .big {
    gap: 0.75rem;
    min-height: 48px;
    font-size: 1rem;
  }
  .big input {
    width: 28px;
    height: 28px;
  }
  @media (max-width: 760px) {
    .check {
      min-height: 48px;
      font-size: 1.05rem;
    }
    input {
      width: 1.6rem;
      height: 1.6rem;
    }
  }
</style>
