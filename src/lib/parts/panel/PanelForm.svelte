<script lang="ts">
  import { sizeName } from '#core/tables/conductors.ts';
  import { rows } from '#core/job/document.ts';
  import type { Feeder, Panel } from '#core/job/schema.ts';
  import { feederLoad, sizeFeeder } from '#core/panel/feeder.ts';
  import { formatLength } from '#core/units/length.ts';
  import { round } from '#core/units/quantity.ts';
  import {
    CABLE_OPTIONS,
    feederOptions,
    GAUGE_OPTIONS,
    MAIN_OPTIONS,
    MATERIAL_OPTIONS,
    STATUS_OPTIONS,
  } from '../../names.ts';
  import { useSession } from '../../store/session.svelte.ts';
  import Act from '../Act.svelte';
  import Choice from '../Choice.svelte';
  import Field from '../Field.svelte';
  import LengthField from '../LengthField.svelte';
  import NumberField from '../NumberField.svelte';
  import Check from '../Check.svelte';
  import WayFields from '../WayFields.svelte';
  import ServiceFields from './ServiceFields.svelte';
  import Working from '../Working.svelte';

  let { panel, onremoved }: { panel: Panel; onremoved: () => void } = $props();

  const session = useSession();
  const document = $derived(session.document);
  const put = (values: Partial<Panel>) =>
    session.attempt({ type: 'put', table: 'panels', rows: [{ ...panel, ...values }] });
  const putFeeder = (values: Partial<Feeder>) =>
    panel.feeder ? put({ feeder: { ...panel.feeder, ...values } }) : null;
  const others = $derived(rows(document.panels).filter((p) => p.id !== panel.id));
  const load = $derived(panel.feeder && feederLoad(session.view, panel));
  const sized = $derived(panel.feeder && load && sizeFeeder(document, panel, panel.feeder, load.amps));

  /** `2, 4, 19-30` as spaces. */
  function putTandems(text: string): string | null | Promise<string | null> {
    const spaces = new Set<number>();
    for (const part of text
      .split(',')
      .map((t) => t.trim())
      .filter(Boolean)) {
      const [from = NaN, to = from] = part.split('-').map(Number);
      if (!Number.isInteger(from) || !Number.isInteger(to) || from < 1 || to > panel.spaces || to < from)
        return `“${part.slice(0, 20)}”: expected spaces from 1 to ${panel.spaces}, such as 2, 19-24`;
      for (let at = from; at <= to; at++) spaces.add(at);
    }
    return put({ tandemSpaces: [...spaces].sort((a, b) => a - b) });
  }
</script>

<section class="sheet pad stack">
  <h2>{panel.name}</h2>
  <div class="grid-form">
    <Field label="Name" value={panel.name} commit={(name) => put({ name: name.trim() })} />
    <NumberField
      label="Main breaker"
      unit="A"
      value={panel.mainRating}
      min={30}
      max={3000}
      set={(mainRating) => put({ mainRating: mainRating! })}
    />
    <Choice
      label="One main opens all that feeds it"
      value={panel.oneMain}
      options={MAIN_OPTIONS}
      set={(oneMain) => put({ oneMain })}
    />
    <NumberField
      label="Bus rating"
      unit="A"
      value={panel.busRating}
      min={30}
      max={3000}
      set={(busRating) => put({ busRating: busRating! })}
    />
    <NumberField
      label="Spaces"
      value={panel.spaces}
      min={2}
      max={84}
      set={(spaces) => put({ spaces: spaces! })}
    />
    <Field
      label="Tandems allowed in"
      value={panel.tandemSpaces.join(', ')}
      placeholder="none marked"
      hint="from the label on the door"
      commit={putTandems}
    />
  </div>
  <div class="flags">
    <Check
      label="Neutral joined to the enclosure"
      hint={panel.feeder ? 'not in a subpanel' : 'at the service'}
      checked={panel.bonded}
      set={(bonded) => put({ bonded })}
    />
    {#if panel.feeder}
      <Check
        label="In another building"
        checked={panel.otherBuilding}
        set={(otherBuilding) => put({ otherBuilding })}
      />
    {/if}
    <Check
      label="Grounding electrode here"
      checked={panel.electrode}
      set={(electrode) => put({ electrode })}
    />
  </div>
  {#if panel.feeder && sized && load}
    {@const feeder = panel.feeder}
    <h3>Feeder</h3>
    <div class="grid-form">
      <Choice
        label="Fed from"
        value={feeder.panelId}
        options={others.map((p) => ({ value: p.id, name: p.name }))}
        set={(panelId) => putFeeder({ panelId })}
      />
      <NumberField
        label="In spaces, the upper"
        value={feeder.space}
        min={1}
        max={84}
        set={(space) => putFeeder({ space: space! })}
      />
      <Choice
        label="Breaker"
        value={feeder.rating}
        options={feederOptions(feeder.rating)}
        set={(rating) => putFeeder({ rating })}
      />
      <Choice
        label="Conductor"
        value={feeder.gauge}
        options={GAUGE_OPTIONS}
        set={(gauge) => putFeeder({ gauge })}
      />
      <Choice
        label="Metal"
        value={feeder.material}
        options={MATERIAL_OPTIONS}
        set={(material) => putFeeder({ material })}
      />
      <Choice
        label="Cable"
        value={feeder.cable}
        options={CABLE_OPTIONS}
        set={(cable) => putFeeder({ cable })}
      />
      <LengthField
        label="Length, measured"
        optional
        inches={feeder.measured}
        options={{ min: 1, max: 24000 }}
        hint="by plan {formatLength(sized.length)}"
        set={(measured) => putFeeder({ measured }) ?? null}
      />
      <Check
        label="A ground of its own: fourth wire or metal raceway"
        hint="four wires"
        checked={feeder.ground}
        set={(ground) => putFeeder({ ground })}
      />
      <Choice
        label="Feeder is"
        value={feeder.status}
        options={STATUS_OPTIONS}
        set={(status) => putFeeder({ status })}
      />
      <WayFields way={feeder} put={putFeeder} />
    </div>
    <p>
      {round(load.amps, 1)} A {load.from}; drop {round(sized.drop.percent, 1)} %; ground {sizeName(
        sized.ground,
      )}.
    </p>
    <details>
      <summary>Show the working: feeder</summary>
      <Working steps={sized.steps} />
    </details>
  {/if}
  <ServiceFields {panel} {put} />
  <Field
    label="Notes for the next one who looks for a fault here"
    value={panel.note}
    placeholder="which breaker runs warm, what shares a neutral, what the directory leaves out"
    commit={(note) => put({ note: note.trim() })}
  />
  {#if others.length > 0 && panel.feeder}
    <Act
      kind="danger"
      onclick={async () => {
        if (await session.execute({ type: 'remove', table: 'panels', ids: [panel.id] })) onremoved();
      }}>Remove {panel.name} and its circuits</Act
    >
  {/if}
</section>

<style>
  .flags {
    display: flex;
    flex-wrap: wrap;
    gap: 0.2rem 1.2rem;
  }
</style>
