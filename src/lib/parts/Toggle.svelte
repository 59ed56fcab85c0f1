<script lang="ts">
  interface Props {
    label: string;
    value: boolean;
    set: (value: boolean) => unknown;
    hint?: string;
  }
  let { label, value, set, hint = '' }: Props = $props();
</script>

<label class="toggle">
  <input type="checkbox" checked={value} onchange={(e) => set(e.currentTarget.checked)} />
  <span
    >{label}{#if hint}<span class="quiet">&nbsp;{hint}</span>{/if}</span
  >
</label>

<style>
  .toggle {
    display: flex;
    gap: 0.5rem;
    align-items: center;
    min-height: 36px;
    font-weight: 600;
    font-size: 0.95rem;
  }
  .toggle .quiet {
    font-weight: 400;
  }
  input {
    width: 1.25rem;
    height: 1.25rem;
    accent-color: var(--accent);
  }
  @media (max-width: 760px) {
    .toggle {
      min-height: 48px;
      font-size: 1.05rem;
    }
    input {
      width: 1.6rem;
      height: 1.6rem;
    }
  }
</style>
