/** What the palette and the keys offer on every page of a job. */
import { tinykeys } from 'tinykeys';
import { goto } from '$app/navigation';
import { page } from '$app/state';
import { circuitsInOrder, rows } from '#core/job/document.ts';
import { EDITIONS } from '#core/job/schema.ts';
import type { PaletteItem } from '$lib/palette.ts';
import { address, type Things } from '$lib/address.svelte.ts';
import { downloadJob } from '$lib/files.ts';
import { outsideFields } from '$lib/keys.ts';
import { PHASES } from '$lib/phases.ts';
import type { JobSession } from '$lib/store/session.svelte.ts';

const go = (session: JobSession, path: string) => goto(address.phase(session.jobId, path));

/** Shows a thing on the page that is open, if that can; else on the first of those that can. */
function show(session: JobSession, things: Things, pages: readonly [string, ...string[]]): void {
  const here = pages.find((p) => page.url.pathname === `/job/${session.jobId}/${p}`);
  if (here) address.choose(things, { view: null, part: null, breaker: null });
  else void goto(`/job/${session.jobId}/${pages[0]}?${new URLSearchParams(things)}`);
}

function actionsOfJob(session: JobSession): PaletteItem[] {
  const { document } = session;
  return [
    {
      id: 'export',
      name: 'Export the job file',
      hint: 'File',
      words: 'save json backup',
      run: () => downloadJob(session.document),
    },
    ...EDITIONS.map((e) => ({
      id: `edition-${e}`,
      name: `Judge by NEC ${e}`,
      hint: 'Edition',
      words: 'code year switch',
      run: () => session.execute({ type: 'edit-job', values: { edition: e } }),
    })),
    ...rows(document.areas).map((a) => ({
      id: a.id,
      name: a.name,
      hint: 'Room',
      words: a.kind,
      run: () => show(session, { area: a.id }, ['layout', 'walk']),
    })),
    ...rows(document.boxes).map((b) => ({
      id: b.id,
      name: b.name,
      hint: document.areas[b.areaId]?.name ?? 'Outlet',
      words: `${b.note} receptacle outlet`,
      run: () =>
        show(
          session,
          { box: b.id },
          session.view.circuitOf(b.id)
            ? ['layout', 'walk', 'runs', 'trim', 'prove']
            : ['layout', 'walk', 'trim'],
        ),
    })),
    ...circuitsInOrder(document).map((c) => ({
      id: c.id,
      name: c.name,
      hint: `Circuit, space ${c.space}`,
      words: 'breaker run',
      run: () => show(session, { circuit: c.id }, ['runs', 'panel', 'prove']),
    })),
  ];
}

export const jobActions = (session: JobSession): PaletteItem[] => [
  ...PHASES.map((p) => ({
    id: `go-${p.path}`,
    name: p.name,
    hint: 'Go to',
    words: p.words,
    run: () => go(session, p.path),
  })),
  ...(session.undoLabel
    ? [{ id: 'undo', name: `Undo: ${session.undoLabel}`, hint: 'Ctrl Z', run: session.undo }]
    : []),
  ...(session.redoLabel
    ? [{ id: 'redo', name: `Redo: ${session.redoLabel}`, hint: 'Ctrl Shift Z', run: session.redo }]
    : []),
  ...(session.status === 'ready' ? actionsOfJob(session) : []),
];

/** Undo, redo and the phases by number. @returns what lets the keys go */
export function listenForKeys(session: () => JobSession): () => void {
  return tinykeys(window, {
    '$mod+z': outsideFields(() => session().undo()),
    '$mod+Shift+Z': outsideFields(() => session().redo()),
    ...Object.fromEntries(
      PHASES.map((p, i) => [
        `Alt+Digit${i + 1}`,
        (event: KeyboardEvent) => {
          event.preventDefault();
          void go(session(), p.path);
        },
      ]),
    ),
  });
}
