<script lang="ts">
  import { circuitsInOrder, NOT_ASKED } from '#core/job/document.ts';
  import type { OtherSource, Proof } from '#core/job/schema.ts';
  import type { RunStop } from '#core/circuits/run.ts';
  import { circuitsIn, pointsIn } from '#core/records/points.ts';
  import { actsOf, REFERENCE, togetherWith, type Act as ProofAct, type Draft } from '#core/records/acts.ts';
  import { DEAD_VOLTS, KNOWN_SOURCE } from '#core/records/thresholds.ts';
  import { standingLockOut } from '#core/records/proof.ts';
  import { panelCaution, sourceNames } from '#core/records/sources.ts';
  import { ProofDraft } from '../../proofDraft.svelte.ts';
  import {
    BASIS_OPTIONS,
    FEEDS_OPTIONS,
    REFERENCE_OPTIONS,
    SOURCE_OPTIONS,
    TESTER_OPTIONS,
  } from '../../names.ts';
  import { localTime } from '../../readings.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Check from '../Check.svelte';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';
  import NumberField from '../NumberField.svelte';
  import GoesDark from './GoesDark.svelte';
  import LiveInstrument from './LiveInstrument.svelte';
  import ProofBoard from './ProofBoard.svelte';

  interface Props {
    stop: RunStop;
    by: string;
    /** The proof that holds here now. */
    proof: Proof | null;
    onproved: () => void;
  }
  let { stop, by, proof, onproved }: Props = $props();

  const session = useSession();
  const { box } = $derived(stop);
  const document = $derived(session.document);
  // One draft a box: the form is made anew for each.
  // svelte-ignore state_referenced_locally
  const made = new ProofDraft(session.jobId, stop.box.id, by, () => session.heads);
  const draft = $derived({ ...made.draft, by });
  const circuits = $derived(circuitsIn(document, box));
  const circuitIds = $derived(circuits.map((c) => c.id));
  const acts = $derived(actsOf(document, box, draft, made.seen));
  const open = $derived(acts.filter((a) => !a.done));
  /** What is before the hands: the first that is open, or one that was chosen to be done again. */
  let chosen = $state<string | null>(null);
  /** A tester that is taken up reads the known source before anything else. */
  const unproved = $derived(
    open[0] !== undefined &&
      open[0].reads !== null &&
      open[0].kind !== 'source' &&
      !made.seen.some((s) => s.node === KNOWN_SOURCE && s.instrument === made.tester),
  );
  const act = $derived(
    !made.answered
      ? (acts.find((a) => a.key === 'by' && !a.done) ??
          acts.find((a) => a.key === 'sources' && !a.done) ??
          acts.find((a) => a.key === 'basis'))
      : (acts.find((a) => a.key === chosen) ??
          (unproved ? acts.find((a) => a.key === 'source-before') : open[0])),
  );
  const panel = $derived(document.panels[circuits[0]?.panelId ?? '']);
  /** What conductors of this box are read to. */
  const referenceName = $derived(acts.find((a) => a.reads?.to === REFERENCE)?.reads?.toName ?? '');
  const hasGround = $derived(pointsIn(document, box).some((p) => p.role === 'ground'));
  let said = $state('');
  let kinds = $state.raw<OtherSource[]>([]);
  let otherName = $state('');
  let addingOther = $state(false);

  const together = $derived(act ? togetherWith(acts, act) : []);
  function seeAt(at: ProofAct, value: number, quantity: 'volts' | 'absent' = 'volts', link = '') {
    made.see(at, { value, quantity, link }, circuitIds);
    chosen = null;
    return null;
  }
  /** Each is a reading of its own on record. */
  const allDead = () => {
    for (const a of together) seeAt(a, 0);
  };
  const see = (value: number, quantity: 'volts' | 'absent' = 'volts', link = '') =>
    act && seeAt(act, value, quantity, link);
  const answerSources = (list: OtherSource[]) =>
    session.attempt({ type: 'edit-job', values: { otherSources: { asked: true, kinds: list } } });
  const answer = (sets: Partial<Draft>) => {
    made.set(sets);
    chosen = null;
  };
  const passThrough = (circuitId: string) =>
    session.attempt({
      type: 'put',
      table: 'boxes',
      rows: [{ ...box, through: [...box.through, circuitId] }],
    });
  const others = $derived(circuitsInOrder(document).filter((c) => !circuitIds.includes(c.id)));

  async function record() {
    made.set({ by });
    said = (await session.attempt(made.command(`${box.name}, ${stop.area.name}`, circuitIds))) ?? '';
    if (said !== '') return;
    made.startAgain();
    onproved();
  }
  const NOT_LISTED = ['earlier-proof', 'earlier-override', 'same-lock-out'];
  const lockOut = $derived(standingLockOut(document, box));
  const bases = BASIS_OPTIONS.filter((b) => !NOT_LISTED.includes(b.value));
  const references = $derived(REFERENCE_OPTIONS.filter((r) => r.value !== 'ground' || hasGround));
</script>

{#if proof}
  <p class="good">
    ✓ Proved dead here {localTime(proof.at)} by {proof.by}. It ends with power on any circuit in this box, a
    lock taken off, or the day.
  </p>
{:else}
  <p class="caution">
    Treat it as live until this is done, and after.
    {#if made.seen.length === 0}A pen or plug-in tester proves nothing. {panelCaution(document, panel)}{/if}
  </p>
  <div class="progress" role="status">
    <span class="count">{acts.length - open.length} of {acts.length}</span>
    <span class="bar" aria-hidden="true"
      ><span style:width="{(100 * (acts.length - open.length)) / acts.length}%"></span></span
    >
    {#if made.seen.length > 0}<Act onclick={() => made.back()}>Take the last back</Act>{/if}
  </div>

  {#if act}
    <div class="act">
      <p class="words">{act.words}</p>
      {#if act.problem && (act.kind !== 'answer' || made.answered)}<p class="wrong" role="alert">
          {act.problem}
        </p>{/if}
      {#if act.key === 'by'}
        <p class="quiet">Type your name above.</p>
      {:else if act.key === 'sources'}
        <p class="quiet">Asked once for the house. With one of these, the main off makes nothing dead.</p>
        {#each SOURCE_OPTIONS as { value: kind, name } (kind)}
          <Check
            big
            label={name}
            checked={kinds.includes(kind)}
            set={(on) => (kinds = on ? [...kinds, kind] : kinds.filter((k) => k !== kind))}
          />
        {/each}
        {#if kinds.length === 0}
          <Act kind="main" big onclick={() => answerSources([])}>None of these, asked and looked</Act>
        {:else}
          <Act kind="main" big onclick={() => answerSources(kinds)}>These are here</Act>
        {/if}
      {:else if act.key === 'basis'}
        {#if lockOut}
          <p class="quiet">
            {lockOut.place} was proved under this lock-out, and no power came back since: only this box’s own acts
            are left.
          </p>
          <Act
            kind="main"
            big
            onclick={() => {
              made.set({
                basis: 'same-lock-out',
                lockedOut: lockOut.lockedOut,
                mainOff: lockOut.mainOff,
                sourcesOff: lockOut.sourcesOff,
                reference: 'lead',
                referenceName: lockOut.referenceName.startsWith('lead')
                  ? lockOut.referenceName
                  : `lead from the ground proved at ${lockOut.place}`.slice(0, 120),
              });
              made.answered = true;
            }}>Same lock-out, lead from its ground</Act
          >
        {/if}
        {#each bases as b (b.value)}
          <Act
            big
            pressed={draft.basis === b.value}
            onclick={() => {
              made.set({ basis: b.value });
              if (b.value !== 'not-landed') {
                made.answered = true;
                chosen = draft.reference === 'ground' && hasGround ? 'reference' : null;
              }
            }}>{b.name}</Act
          >
        {/each}
        {#if draft.basis === 'not-landed'}
          <Field
            label="Seen not landed by"
            value={draft.seenBy}
            hint="stands on the sheet"
            commit={(name) => {
              if (name.trim() === '' || name.length > 80) return 'expected a name of up to 80 characters';
              made.set({ seenBy: name.trim(), reference: 'lead' });
              made.answered = true;
              return null;
            }}
          />
        {/if}
      {:else if act.key === 'feeds'}
        <p class="quiet">
          A dead outlet reads dead with any breaker off. One of these shows that it is this one; it stands on
          the sheet.
        </p>
        {#each FEEDS_OPTIONS as f (f.value)}
          <Act big pressed={draft.feeds === f.value} onclick={() => answer({ feeds: f.value })}>{f.name}</Act>
        {/each}
      {:else if act.key === 'reference'}
        <p class="quiet">
          One thing that is known to be ground. A neutral is none: open, it rises with what is read against
          it.
        </p>
        {#each references as r (r.value)}
          <Act
            big
            pressed={draft.reference === r.value}
            onclick={() => {
              made.set({ reference: r.value, referenceName: '' });
              made.answered = true;
              if (r.value !== 'lead') chosen = null;
            }}>{r.name}</Act
          >
        {/each}
        {#if draft.reference === 'lead'}
          <Field
            label="Lead from"
            value={draft.referenceName}
            placeholder="ground bar of Panel A"
            commit={(name) => {
              if (name.trim() === '' || name.length > 100)
                return 'expected where it is clipped on, up to 100 characters';
              made.set({ referenceName: `lead from ${name.trim().replace(/^lead from /i, '')}` });
              chosen = null;
              return null;
            }}
          />
        {/if}
      {:else if act.sets}
        {@const { sets } = act}
        {@const turned = circuits.filter((c) => act.key === `lock ${c.id}`)}
        {#if turned.length > 0}<GoesDark circuits={turned} />{/if}
        <Act kind="main" big onclick={() => answer(sets)}>Done</Act>
      {:else if act.key === 'cables'}
        <p class="quiet">One cable is an end; two pass; three or more branch. Each is read by itself.</p>
        <div class="counts">
          {#each [1, 2, 3, 4, 5, 6] as n (n)}
            <Act
              kind={n < 3 ? 'main' : 'plain'}
              big
              onclick={() => session.attempt({ type: 'put', table: 'boxes', rows: [{ ...box, cables: n }] })}
              >{n}</Act
            >
          {/each}
        </div>
      {:else if act.key === 'others'}
        <p class="quiet">
          A loose end behind a dead face can be live. Pull gently at each: one that comes out of its joint is
          read too.
        </p>
        <Act kind="main" big onclick={() => made.set({ others: 'none' })}>None: I looked</Act>
        <Act big onclick={() => (addingOther = true)}>There is another</Act>
        {#if addingOther}
          <Field
            label="What it is"
            value={otherName}
            placeholder="loose black at the back"
            commit={(text) => {
              otherName = text.trim();
              return text.length > 100 ? 'expected at most 100 characters' : null;
            }}
          />
          <NumberField
            optional
            label="It to the {draft.referenceName || 'ground'}"
            unit="V"
            min={0}
            max={1000}
            value={null}
            set={(v) => {
              if (otherName === '') return 'expected what it is, above';
              if (v === null) return 'expected a reading';
              made.addOther(otherName, v, circuitIds, referenceName);
              addingOther = false;
              otherName = '';
              return null;
            }}
          />
        {/if}
      {:else if act.reads}
        {#if together.length > 1}
          <p class="quiet">
            Then, without looking up: {together
              .slice(1)
              .map((a) => a.brief)
              .join(' · ')}.
          </p>
        {/if}
        <div class="tester" role="group" aria-label="Tester">
          {#each TESTER_OPTIONS as t (t.value)}
            <Act pressed={made.tester === t.value} onclick={() => (made.tester = t.value)}>{t.name}</Act>
          {/each}
        </div>
        {#key `${act.key} ${made.seen.length}`}
          <div class="keys" class:several={together.length > 1}>
            {#if act.reads.live}
              {#if made.tester === 'two-pole tester'}
                <Act kind="main" big onclick={() => see(120)}>120 V lit</Act>
              {/if}
            {:else}
              <Act kind="main" big onclick={() => see(0)}>Dead</Act>
              {#if together.length > 1}
                <Act big onclick={allDead}>All {together.length} read dead</Act>
              {/if}
            {/if}
            <NumberField
              optional
              big
              label={act.reads.live ? 'or volts shown' : `or volts shown, ${DEAD_VOLTS} or less is dead`}
              unit="V"
              min={0}
              max={1000}
              value={null}
              set={(v) => (v === null ? null : (see(v) ?? null))}
            />
          </div>
        {/key}
        <LiveInstrument
          {box}
          circuit={circuits[0] ?? null}
          onread={(volts, name) => see(Object.values(volts)[0] ?? 0, 'volts', name)}
          onlog={async (volts, name) => void see(Object.values(volts)[0] ?? 0, 'volts', name)}
        />
        {#if act.mayBeAbsent}<Act onclick={() => see(0, 'absent')}>Not in this box: I looked</Act>{/if}
      {/if}
    </div>
  {:else}
    <div class="act">
      <p class="words">Every conductor on record is read dead.</p>
      <Check
        big
        label="The main is off and locked as well"
        checked={draft.mainOff}
        set={(mainOff) => made.set({ mainOff })}
      />
      {#if said}<p class="wrong" role="alert">{said}</p>{/if}
      <Act kind="main" big onclick={record}>Record: {box.name} is dead</Act>
    </div>
  {/if}

  <ProofBoard {acts} now={act?.key ?? ''} />
  <details>
    <summary>All {acts.length} acts</summary>
    <ol>
      {#each acts as a, i (a.key)}
        <li class:done={a.done}>
          <button
            type="button"
            aria-label="{a.words}{a.done ? ', done' : ''}"
            onclick={() => (chosen = a.key)}
          >
            <span aria-hidden="true">{a.done ? '✓' : i + 1}</span>
            <span
              >{a.words}{a.done ? ', done' : ''}{#if a.problem && !a.done}<span class="wrong">
                  {a.problem}</span
                >{/if}</span
            >
          </button>
        </li>
      {/each}
    </ol>
    {#if made.seen.length > 0}<Act onclick={() => made.startAgain()}>Start again</Act>{/if}
  </details>
  {#if others.length > 0}
    <details>
      <summary>Another circuit in this box?</summary>
      <p class="quiet">Its conductors are read too, and power on it ends the proof.</p>
      <Choice
        label="Circuit"
        value=""
        options={[
          { value: '', name: 'Choose …' },
          ...others.map((c) => ({ value: c.id, name: `${c.space} · ${c.name}` })),
        ]}
        set={(id) => id !== '' && passThrough(id)}
      />
    </details>
  {/if}
  {#if document.job.otherSources.asked}
    <p class="quiet">
      Other sources: {sourceNames(document.job) || 'none'}.
      <button
        type="button"
        class="again"
        onclick={() => session.attempt({ type: 'edit-job', values: { otherSources: NOT_ASKED } })}
        >Ask again</button
      >
    </p>
  {/if}
{/if}

<style>
  .progress {
    display: grid;
    grid-template-columns: auto 1fr auto;
    gap: 0.6rem;
    align-items: center;
  }
  .count {
    font-weight: 700;
    font-variant-numeric: tabular-nums;
  }
  .bar {
    height: 8px;
    border: 1px solid var(--edge);
  }
  .bar span {
    display: block;
    height: 100%;
    background: var(--good);
  }
  .act {
    display: grid;
    gap: 0.6rem;
    border: 2px solid var(--ink);
    padding: 0.75rem;
  }
  .words::first-letter {
    text-transform: uppercase;
  }
  .words {
    font-size: 1.35rem;
    font-weight: 750;
    line-height: 1.2;
  }
  .counts {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 0.5rem;
  }
  .counts :global(button) {
    min-height: 60px;
    font-size: 1.5rem;
  }
  .tester {
    display: flex;
    flex-wrap: wrap;
    gap: 0.4rem;
  }
  .keys {
    display: grid;
    grid-template-columns: minmax(7rem, auto) 1fr;
    gap: 0.6rem;
    align-items: end;
  }
  .keys.several {
    grid-template-columns: auto 1fr;
  }
  .keys.several > :global(:last-child) {
    grid-column: 1 / -1;
  }
  .keys :global(button) {
    font-size: 1.5rem;
    min-height: 56px;
  }
  summary {
    min-height: 2.6rem;
    font-weight: 650;
  }
  li button {
    display: grid;
    grid-template-columns: 2rem 1fr;
    width: 100%;
    text-align: left;
    min-height: 44px;
    border-top: 1px solid var(--rule);
  }
  li.done {
    color: var(--good);
  }
  .good {
    color: var(--good);
    font-weight: 700;
  }
  .again {
    text-decoration: underline;
  }
</style>
