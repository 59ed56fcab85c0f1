<script lang="ts">
  import type { Area, Box } from '#core/job/schema.ts';
  import { duplicateAlong } from '#core/layout/arrangeBoxes.ts';
  import { freeName, nameKey, namesIn } from '#core/job/names.ts';
  import { letterOf } from '#core/layout/placement.ts';
  import { parseLength } from '#core/units/length.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Field from '../Field.svelte';

  let { box, area, placed }: { box: Box; area: Area; placed: (ids: string[]) => void } = $props();

  const session = useSession();

  /** `6', 3`: every six feet, three more. A minus goes toward the wall's start. */
  async function duplicate(text: string): Promise<string | null> {
    const [spacingText = '', countText = '1'] = text.split(',');
    const back = spacingText.trim().startsWith('-');
    const spacing = parseLength(spacingText.replace('-', ''), { min: 1 });
    if (!spacing.ok) return `spacing: ${spacing.message}`;
    const count = Number(countText.trim());
    if (!Number.isInteger(count) || count < 1 || count > 40)
      return `how many: expected a whole number from 1 to 40, found “${countText.trim().slice(0, 20)}”`;
    const taken = namesIn(session.document);
    const copies = duplicateAlong(area, box, back ? -spacing.value : spacing.value, count, (names) =>
      freeName(letterOf(area), new Set([...taken, ...names.map(nameKey)])),
    );
    if (copies.length === 0) return 'none fits on this wall at that spacing';
    const problem = await session.attempt({
      type: 'batch',
      label: `Duplicate ${box.name} ${copies.length} times`,
      commands: [{ type: 'put', table: 'boxes', rows: copies }],
    });
    if (problem === null) placed(copies.map((c) => c.id));
    return problem;
  }
</script>

<Field
  label="Duplicate along the wall: spacing, how many"
  value=""
  clears
  placeholder="6', 3"
  hint="Enter adds them; a minus goes back"
  commit={duplicate}
/>
