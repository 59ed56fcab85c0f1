<script lang="ts">
  /** A box to tick, large enough for a glove. */
  interface Props {
    label: string;
    checked: boolean;
    set: (checked: boolean) => void;
  }
  let { label, checked, set }: Props = $props();
</script>

<label class="check">
  <input type="checkbox" {checked} onchange={(e) => set(e.currentTarget.checked)} />
  <span>{label}</span>
</label>

<style>
  .check {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0.75rem;
    align-items: center;
    min-height: 48px;
    font-weight: 600;
  }
  input {
    width: 28px;
    height: 28px;
  }
</style>
