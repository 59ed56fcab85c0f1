<script lang="ts">
  import Choice from '../Choice.svelte';
  import type { Filter } from './readingRows.ts';

  interface Props {
    filter: Filter;
    circuits: readonly string[];
    set: (filter: Filter) => void;
  }
  let { filter, circuits, set }: Props = $props();
  const GRADES = {
    good: 'Correct',
    worry: 'Worry',
    bad: 'Bad',
    'no-power': 'No voltage',
    none: 'Nothing read',
  } as const;
</script>

<div class="filters">
  <label>
    <span>Find</span>
    <input
      type="search"
      placeholder="outlet, name, note"
      value={filter.words}
      oninput={(e) => set({ ...filter, words: e.currentTarget.value })}
    />
  </label>
  <Choice
    label="Circuit"
    value={filter.circuit}
    options={[{ value: 'all', name: 'every circuit' }, ...circuits.map((c) => ({ value: c, name: c }))]}
    set={(circuit) => set({ ...filter, circuit })}
  />
  <Choice
    label="Stage"
    value={filter.stage}
    options={[
      { value: 'all', name: 'both stages' },
      { value: 'as-found', name: 'As found' },
      { value: 'as-left', name: 'As left' },
    ]}
    set={(stage) => set({ ...filter, stage })}
  />
  <Choice
    label="Verdict"
    value={filter.grade}
    options={[
      { value: 'all', name: 'every verdict' },
      ...(Object.keys(GRADES) as (keyof typeof GRADES)[]).map((g) => ({ value: g, name: GRADES[g] })),
    ]}
    set={(grade) => set({ ...filter, grade })}
  />
</div>

<style>
  .filters {
    display: flex;
    flex-wrap: wrap;
    gap: 0.5rem 1rem;
    align-items: end;
  }
  label span {
    display: block;
    font-size: 0.875rem;
    font-weight: 600;
    margin-bottom: 0.25rem;
  }
  input {
    border: 1px solid var(--edge);
    background: var(--sheet);
    padding: 0.4rem 0.6rem;
    min-height: 38px;
  }
</style>
