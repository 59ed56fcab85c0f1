/** Steps that bring an older job file to the current form. One function per version, never edited later. */
import { freeName, lettersOf, nameKey } from './names.ts';

export const SCHEMA = 'hekto-job';
export const VERSION = 16;

type Raw = Record<string, unknown>;
const list = (value: unknown): Raw[] => (Array.isArray(value) ? (value as Raw[]) : []);

/**
 * Version 1 knew receptacles only, with their height in feet, kept the edition beside the job, and had
 * neither outlets standing out from the wall nor energizings on record.
 */
function fromVersion1(file: Raw): Raw {
  const { receptacles, edition, ...rest } = file;
  return {
    ...rest,
    version: 2,
    job: { ...(rest.job as Raw), edition },
    boxes: list(receptacles).map(({ heightFeet, ...box }) => ({
      ...box,
      height: typeof heightFeet === 'number' ? heightFeet * 12 : heightFeet,
      fromWall: 0,
    })),
    energizings: [],
  };
}

/**
 * Version 2 knew rooms, openings and receptacles. Counters were a kind of opening; nothing was recorded of
 * fixtures, of what stood open behind a face, of local amendments or of pictures.
 */
function fromVersion2(file: Raw): Raw {
  const openings = list(file.openings);
  const isCounter = (o: Raw) => o.kind === 'cabinet-with-counter';
  const job = (file.job ?? {}) as Raw;
  return {
    ...file,
    version: 3,
    job: {
      ...job,
      permitDate: null,
      laundryElsewhere: false,
      settings: { ...(job.settings as Raw), wallThickness: 4.5, everyWall: false, extraAtTelevision: false },
    },
    areas: list(file.areas).map((area) => ({
      ...area,
      ceilingHeight: 96,
      conditions: {
        bays: 0,
        risers: 0,
        detached: false,
        powered: true,
        attachedToUnit: true,
        habitable: false,
        foodPreparation: false,
        roofed: false,
        faces: 'none',
        ownEntrance: false,
        reachedFromInside: false,
        aboveGrade: null,
        houseGap: null,
      },
    })),
    openings: openings
      .filter((o) => !isCounter(o))
      .map((o) => ({
        ...o,
        bottom: 0,
        top: o.kind === 'fireplace' ? 40 : o.kind === 'cabinet' ? 96 : 80,
      })),
    fixtures: openings.filter(isCounter).map((o) => ({
      id: `fixture-${String(o.id).replace(/^[a-z]+-/, '')}`,
      areaId: o.areaId,
      name: 'Counter',
      kind: 'counter',
      wallId: o.wallId,
      offset: Number(o.offset) + Number(o.width) / 2,
      fromWall: 0,
      width: o.width,
      depth: 24,
      height: 36,
      status: 'existing',
      fastened: true,
      corner: false,
      overhang: 0,
      futureProvision: false,
      connection: 'none',
      nameplate: null,
      note: '',
    })),
    boxes: list(file.boxes).map((box) => ({
      ...box,
      device: {
        ...(box.device as Raw),
        volts: '125',
        cover: 'indoor',
        switched: 'none',
        automatic: false,
        markedControlled: false,
      },
      mount: Number(box.fromWall) > 0 ? 'floor' : 'wall',
      fixtureId: null,
      serves: null,
      purpose: 'general',
      accessible: true,
      controls: [],
      found: null,
    })),
    panels: list(file.panels).map((panel) => ({ ...panel, found: null })),
    circuits: list(file.circuits).map((circuit) => ({
      ...circuit,
      breaker: { ...(circuit.breaker as Raw), poles: 1 },
    })),
    amendments: [],
    pictures: [],
  };
}

/** Version 3 knew one panel, breakers by their poles alone, and nothing of how a cable is joined in a box. */
function fromVersion3(file: Raw): Raw {
  const plate = (fixture: Raw) => {
    const nameplate = fixture.nameplate as Raw | null;
    return (
      nameplate && {
        ...nameplate,
        minimumAmpacity: null,
        maximumBreaker: null,
        horsepower: null,
        continuous: fixture.kind === 'kiln',
      }
    );
  };
  const neutrals = new Map(
    list(file.boxes).map((b) => {
      const device = (b.device ?? {}) as Raw;
      return [b.id, device.kind !== 'hard-wired' && device.volts !== '250'] as const;
    }),
  );
  return {
    ...file,
    version: 4,
    job: { ...(file.job as Raw), load: { method: 'standard', floorArea: null }, prices: [] },
    fixtures: list(file.fixtures).map((fixture) => ({ ...fixture, nameplate: plate(fixture) })),
    boxes: list(file.boxes).map((box) => ({ ...box, device: { ...(box.device as Raw), tabs: 'whole' } })),
    panels: list(file.panels).map((panel) => ({
      ...panel,
      busRating: panel.mainRating,
      tandemSpaces: [],
      feeder: null,
      bonded: true,
      otherBuilding: false,
      electrode: true,
      note: '',
    })),
    circuits: list(file.circuits).map((circuit) => {
      const breaker = (circuit.breaker ?? {}) as Raw;
      const twoPoles = breaker.poles === 2;
      const [first] = list(circuit.stops);
      return {
        ...circuit,
        half: 'whole',
        otherSpace: null,
        breaker: { ...breaker, tie: twoPoles ? 'common-trip' : 'none', listed: 'unknown' },
        neutral: !twoPoles || (first !== undefined && (neutrals.get(first.boxId) ?? true)),
        ambient: 30,
        bundled: 2,
        stops: list(circuit.stops).map((stop) => ({
          ...stop,
          side: 'load',
          splice: 'pigtail',
          hot: 'black',
          whiteMarked: 'unknown',
        })),
      };
    }),
  };
}

/** Version 4 read three voltages of a whole outlet, and knew no limits, testers, overrides or tests of devices. */
function fromVersion4(file: Raw): Raw {
  const job = (file.job ?? {}) as Raw;
  const dead = (readings: unknown) => ({ ...(readings as Raw), hotHot: null });
  return {
    ...file,
    version: 5,
    job: {
      ...job,
      settings: {
        ...(job.settings as Raw),
        limits: {
          lowVolts: 110,
          highVolts: 127,
          neutralGround: 5,
          hotGroundShortfall: 4,
          excessOhms: 0.2,
          groundOhms: 1,
          imbalancePercent: 30,
          apartPercent: 3,
        },
        tester: {
          order: 'HN HG NG',
          hotNeutral: 'amber',
          hotGround: 'amber',
          neutralGround: 'red',
          lights: 85,
        },
      },
    },
    readings: list(file.readings).map((r) => ({
      ...r,
      hotHot: null,
      groundOhms: null,
      half: 'both',
      openBox: false,
    })),
    proofs: list(file.proofs).map((p) => ({ ...p, face: dead(p.face), screws: dead(p.screws) })),
    energizings: list(file.energizings).map((e) => ({ ...e, purpose: 'use' })),
    overrides: [],
    deviceTests: [],
  };
}

/** Version 5 took it that a feeder ran at 30 °C with nothing beside it. */
const fromVersion5 = (file: Raw): Raw => ({
  ...file,
  version: 6,
  panels: list(file.panels).map(({ feeder, ...panel }) => ({
    ...panel,
    feeder: feeder && { ...feeder, ambient: 30, bundled: 2 },
  })),
});

/** A proof of version 6 as observations: what was read at the face and at the screws, before and after. */
function observationsOf(proof: Raw, first: number): Raw[] {
  const found: Raw[] = [];
  const add = (node: string, nodeName: string, to: string | null, value: unknown, before: boolean) => {
    if (typeof value !== 'number') return;
    found.push({
      id: `observation-earlier-${first + found.length}`,
      boxId: proof.boxId,
      place: proof.place,
      at: proof.at,
      by: proof.by,
      node,
      nodeName,
      to,
      toName: '',
      quantity: 'volts',
      value,
      // Nobody recorded with what.
      instrument: 'high-impedance meter',
      on: before ? [proof.circuitId] : [],
      off: before ? [] : [proof.circuitId],
    });
  };
  const pairs = [
    ['hotNeutral', 'hot', 'neutral'],
    ['hotGround', 'hot', 'ground'],
    ['neutralGround', 'neutral', 'ground'],
    ['hotHot', 'hot', 'other hot'],
  ] as const;
  add('live', 'at the outlet', 'neutral', proof.liveBefore, true);
  add('known-source', 'known live source', 'known-source', proof.knownLiveBefore, false);
  for (const place of ['face', 'screws'] as const)
    for (const [pair, node, to] of pairs)
      add(
        `${place}.${node}`,
        `${node}, ${place}`,
        `${place}.${to}`,
        (proof[place] as Raw | null)?.[pair],
        false,
      );
  add('known-source', 'known live source', 'known-source', proof.knownLiveAfter, false);
  return found;
}

/**
 * Version 6 proved a box by three pairs at its face and at its screws, which a live second pole passes, and let a reason
 * in words open one. Both stay on record and no longer open anything.
 */
function fromVersion6(file: Raw): Raw {
  const observations: Raw[] = [];
  const earlier = (record: Raw, basis: string) => ({
    id: record.id,
    boxId: record.boxId,
    place: record.place,
    at: record.at,
    by: record.by,
    basis,
    seenBy: '',
    lockedOut: record.lockedOut === true || basis === 'earlier-override' ? [record.circuitId] : [],
    mainOff: false,
    sourcesOff: [],
    reference: 'none',
    referenceName: '',
    others: 'not-looked',
    observations: [] as unknown[],
    reason: record.reason ?? '',
  });
  const proofs = list(file.proofs).map((proof) => {
    const own = observationsOf(proof, observations.length + 1);
    observations.push(...own);
    return { ...earlier(proof, 'earlier-proof'), observations: own.map((o) => o.id) };
  });
  const overrides = list(file.overrides).map((override) => ({
    ...earlier(override, 'earlier-override'),
    id: String(override.id)
      .replace(/^override-/, 'proof-override-')
      .slice(0, 60),
  }));
  const rest = { ...file };
  delete rest.overrides;
  return {
    ...rest,
    version: 7,
    job: { ...(file.job as Raw), otherSources: { asked: false, kinds: [] } },
    boxes: list(file.boxes).map((box) => ({ ...box, through: [] })),
    panels: list(file.panels).map(({ feeder, ...panel }) => ({
      ...panel,
      feeder: feeder && { ...feeder, status: 'existing' },
      oneMain: 'unknown',
    })),
    readings: list(file.readings).map((reading) => ({ ...reading, groundReference: null })),
    observations,
    proofs: [...proofs, ...overrides],
  };
}

/** Outlets have names of their own; of two with the same, the later is numbered on. */
function fromVersion7(file: Raw): Raw {
  const boxes = list(file.boxes);
  const named = boxes.filter((b) => typeof b.name === 'string') as { name: string }[];
  const all = new Set(named.map((b) => nameKey(b.name)));
  const seen = new Set<string>();
  return {
    ...file,
    version: 8,
    boxes: boxes.map((box) => {
      if (typeof box.name !== 'string') return box;
      const name = seen.has(nameKey(box.name)) ? freeName(lettersOf(box.name), all) : box.name;
      seen.add(nameKey(name));
      all.add(nameKey(name));
      return { ...box, name };
    }),
  };
}

/** Words of version 8 that the trade spells otherwise. */
const RENAMED: Readonly<Record<string, string>> = {
  aluminium: 'aluminum',
  grey: 'gray',
  traveller: 'traveler',
  disposer: 'disposal',
  'hard-wired': 'hardwired',
};
const renamed = (word: unknown): unknown => (typeof word === 'string' ? (RENAMED[word] ?? word) : word);
const isRaw = (value: unknown): value is Raw => typeof value === 'object' && value !== null;
/** A row with some of its words renamed, where it has them. */
const withRenamed = <T>(row: T, ...keys: string[]): T =>
  isRaw(row)
    ? ({
        ...row,
        ...Object.fromEntries(keys.filter((k) => k in row).map((k) => [k, renamed((row as Raw)[k])])),
      } as T)
    : row;

function foundFrom8(found: unknown): unknown {
  if (!isRaw(found)) return found;
  const conductors = list(found.conductors).map((c) => {
    if (!isRaw(c)) return c;
    const { colour, ...rest } = c;
    return { ...withRenamed(rest, 'function'), color: renamed(colour) };
  });
  const signs = Array.isArray(found.signs) ? found.signs.map(renamed) : found.signs;
  return { ...found, conductors, signs };
}

/** Words as the trade spells them; what inspectors look at has its place, and nobody has looked yet. */
function fromVersion8(file: Raw): Raw {
  return {
    ...file,
    version: 9,
    fixtures: list(file.fixtures).map((f) =>
      isRaw(f) ? { ...withRenamed(f, 'kind', 'connection'), disconnect: 'unknown' } : f,
    ),
    panels: list(file.panels).map((p) =>
      isRaw(p)
        ? {
            ...p,
            feeder: withRenamed(p.feeder, 'material'),
            status: 'existing',
            clear: { width: null, depth: null, height: null, highestHandle: null },
            foreignAbove: 'unknown',
            service: {
              gauge: null,
              material: 'copper',
              surge: 'unknown',
              outdoorDisconnect: 'unknown',
              electrodes: null,
              rods: 0,
              rodProved: 'unknown',
              waterBonded: 'unknown',
              gasBonded: 'unknown',
              intersystem: 'unknown',
            },
          }
        : p,
    ),
    boxes: list(file.boxes).map((b) =>
      isRaw(b)
        ? {
            ...b,
            alsoServes: null,
            enclosure: { volume: null, clamps: 'unknown' },
            device: withRenamed(b.device, 'kind'),
            seen: {
              luminaire: 'unknown',
              fanBox: 'unknown',
              aluminumRated: 'unknown',
              switchNeutral: 'unknown',
              labels: 'unknown',
            },
            found: foundFrom8(b.found),
          }
        : b,
    ),
    circuits: list(file.circuits).map((c) =>
      isRaw(c) ? { ...withRenamed(c, 'material'), ground: null, route: 'unknown', cover: null } : c,
    ),
    looks: [],
  };
}

const FUNCTIONS_10: Record<string, string> = { feed: 'hot', 'hot onward': 'hot' };

/** Cables, conductors and splices that were counted in an old box, as wiring of which nobody said what is joined to what. */
function wiringFrom9(found: Raw): Raw | null {
  const conductors = list(found.conductors).filter(isRaw);
  // Hostile numbers: more than a row may have is as many as the schema then refuses.
  const counted = (value: unknown) => Math.min(64, Math.max(0, Math.trunc(Number(value) || 0)));
  const count = counted(found.cables);
  const splices = counted(found.splices);
  if (count === 0 && splices === 0 && conductors.length === 0) return null;
  const most = Math.max(count, ...conductors.map((c) => counted(c.cable)));
  const signs: unknown[] = Array.isArray(found.signs) ? found.signs : [];
  const cables = Array.from({ length: most }, (_, i) => {
    const own = conductors.filter((c) => c.cable === i + 1);
    const says = (what: string) => own.some((c) => c.function === what);
    let travelers = 0;
    const seen = new Map<unknown, number>();
    return {
      id: `cable-${i + 1}`,
      toward: says('feed') ? 'feed' : says('hot onward') ? 'onward' : 'unknown',
      circuitId: null,
      raceway: false,
      stands: 'ends',
      conductors: own.map((c) => {
        const before = seen.get(c.color) ?? 0;
        seen.set(c.color, before + 1);
        const called = String(c.function);
        return {
          id: before === 0 ? c.color : `${String(c.color)}-${before + 1}`,
          color: c.color,
          function:
            called === 'traveler'
              ? `traveler-${travelers++ % 2 === 0 ? 1 : 2}`
              : (FUNCTIONS_10[called] ?? called),
          gauge: null,
          material: signs.includes('aluminum') ? 'aluminum' : 'copper',
          mark: null,
        };
      }),
    };
  });
  return {
    stage: 'as-found',
    at: null,
    by: '',
    wiring: {
      cables,
      yokes: [],
      splices: Array.from({ length: splices }, (_, i) => ({ id: `splice-${i + 1}`, connector: 'unknown' })),
      tails: [],
      places: [],
    },
  };
}

/** What is joined to what in a box has its place; ways of working are a setting; segments may be of another cable. */
function fromVersion9(file: Raw): Raw {
  const job = (file.job ?? {}) as Raw;
  return {
    ...file,
    version: 10,
    job: {
      ...job,
      settings: {
        ...(job.settings as Raw),
        school: {
          joining: 'pigtail',
          connector: 'twist-on',
          tape: false,
          groundSlot: 'down',
          landing: 'ground-neutral-hot',
          bond: 'tail',
        },
      },
    },
    boxes: list(file.boxes).map((b) => {
      if (!isRaw(b)) return b;
      const { found } = b;
      const counted = ['cables', 'conductors', 'splices'];
      const rest = isRaw(found)
        ? Object.fromEntries(Object.entries(found).filter(([field]) => !counted.includes(field)))
        : found;
      return {
        ...b,
        device: isRaw(b.device) ? { ...b.device, build: 'usual' } : b.device,
        found: rest,
        wiring: isRaw(found) ? wiringFrom9(found) : null,
        school: null,
      };
    }),
    circuits: list(file.circuits).map((c) =>
      isRaw(c) ? { ...c, stops: list(c.stops).map((s) => (isRaw(s) ? { ...s, cable: null } : s)) } : c,
    ),
    ticks: [],
  };
}

/** Measurements with every instrument have a table, and so has what was tied or parted for them. */
const fromVersion10 = (file: Raw): Raw => ({ ...file, version: 11, measurements: [], temporaries: [] });

/** An outlet may be a room and a few words; a circuit may be known in part. What was drawn was whole and in order. */
const fromVersion11 = (file: Raw): Raw => ({
  ...file,
  version: 12,
  boxes: list(file.boxes).map((b) => (isRaw(b) ? { ...b, spot: '' } : b)),
  circuits: list(file.circuits).map((c) => (isRaw(c) ? { ...c, complete: 'yes', ordered: 'yes' } : c)),
});

/** A job may begin as a call, whose procedures, flips and opened boxes are on record. What was there was a project. */
const fromVersion12 = (file: Raw): Raw => ({
  ...file,
  version: 13,
  job: isRaw(file.job) ? { ...file.job, entry: 'project' } : file.job,
  boxes: list(file.boxes).map((b) => (isRaw(b) ? { ...b, cables: null } : b)),
  panels: list(file.panels).map((p) => (isRaw(p) ? { ...p, known: 'yes' } : p)),
  circuits: list(file.circuits).map((c) => (isRaw(c) ? { ...c, seen: 'yes', mayBeFirst: [] } : c)),
  observations: list(file.observations).map((o) => (isRaw(o) ? { ...o, link: '' } : o)),
  calls: [],
  entries: [],
  flips: [],
  partings: [],
  people: [],
  countersigns: [],
});

/** Version 13 knew no faults found, and nothing of how likely each is. */
const fromVersion13 = (file: Raw): Raw => {
  const job = isRaw(file.job) ? file.job : {};
  const settings = isRaw(job.settings) ? job.settings : {};
  return {
    ...file,
    version: 14,
    job: {
      ...job,
      settings: {
        ...settings,
        hunt: {
          licensedOnly: false,
          learn: false,
          factors: {
            pushIn: 4,
            feedThrough: 1.6,
            aluminum: 3,
            heat: 5,
            outdoors: 2.5,
            old: 1.8,
            noGround: 4,
          },
        },
      },
    },
    faults: [],
  };
};

/** What wrote all that was put on record before rows had stamps. */
export const BEFORE_STAMPS = 'device-before';

/** Tables of the record in version 14; of one moment, what is read stands before what rests on it. */
const RECORDS_OF_14 = [
  ...['people', 'observations', 'readings', 'measurements', 'deviceTests', 'looks', 'flips'],
  ...['partings', 'temporaries', 'ticks', 'entries', 'faults', 'countersigns', 'proofs', 'energizings'],
];

/** A moment as milliseconds; what is none comes first. */
const momentOf = (at: unknown): number => {
  const time = typeof at === 'string' ? Date.parse(at) : NaN;
  return Number.isNaN(time) ? -1 : time;
};

/** Texts of several lines, by the names of their fields. */
const OF_LINES = new Set(['note', 'evidence']);
const UNCLEAN =
  /[\u0000-\u0008\u000b-\u001f\u007f-\u009f\u2028\u2029]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

/** A value with every text in it clean; what is clean stays the same text. */
function cleaned(value: unknown, field: string, ofLines: boolean): unknown {
  if (typeof value === 'string') {
    if (!/[^ -~\u00a0-\ud7ff]/.test(value)) return value;
    const lines = value.replace(/\r\n?/g, '\n').replace(UNCLEAN, ' ');
    const clean = ofLines && OF_LINES.has(field) ? lines : lines.replace(/[\n\t]/g, ' ');
    return clean === value ? value : clean.trim() || '?';
  }
  if (typeof value !== 'object' || value === null) return value;
  // Most of what there is is clean, and is not copied.
  let copy: Raw | unknown[] | null = null;
  for (const [key, v] of Object.entries(value)) {
    const clean = cleaned(v, Array.isArray(value) ? field : key, ofLines);
    if (clean === v) continue;
    copy ??= Array.isArray(value) ? [...(value as unknown[])] : { ...(value as Raw) };
    (copy as Raw)[key] = clean;
  }
  return copy ?? value;
}
const cleanFile = (file: Raw): Raw =>
  Object.fromEntries(
    Object.entries(file).map(([table, value]) => [
      table,
      cleaned(value, table, table === 'entries' || table === 'faults'),
    ]),
  );

/** What is on record has an order of its own; until then times alone said it, and of one moment the ids. */
function fromVersion14(unclean: Raw): Raw {
  const file = cleanFile(unclean);
  const all = RECORDS_OF_14.flatMap((table, rank) =>
    list(file[table]).map((row) => ({ table, rank, row, time: momentOf(row.at), id: String(row.id) })),
  ).sort((a, b) => a.time - b.time || a.rank - b.rank || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));
  const places = new Map(all.map(({ row }, k) => [row, k + 1]));
  const answers = new Map(list(file.entries).map((e) => [`${String(e.by)} ${momentOf(e.at)}`, e.id]));
  // What was read without its load stands a millisecond before what was read with it.
  const answerOf = ({ by, at }: Raw): unknown =>
    [0, 1].flatMap((later) => answers.get(`${String(by)} ${momentOf(at) + later}`) ?? [])[0] ?? null;
  const stamped = (row: Raw): Raw => ({
    ...row,
    stamp: { device: BEFORE_STAMPS, n: places.get(row), clock: places.get(row) },
  });
  return {
    ...file,
    version: 15,
    ...Object.fromEntries(RECORDS_OF_14.map((table) => [table, list(file[table]).map(stamped)])),
    readings: list(file.readings).map((r) => ({
      ...stamped(r),
      from: answerOf(r),
      // Of all names that were typed, that one alone was written by a hunt.
      meter: r.instrument === 'Meter, low impedance' ? 'low-impedance meter' : 'unknown',
    })),
    proofs: list(file.proofs).map((p) => ({ ...stamped(p), had: null })),
    alterations: [],
    takings: [],
  };
}

/** An answer may say of several boxes and of a panel that hands were in them; who closed what is on record. */
const fromVersion15 = (file: Raw): Raw => ({
  ...file,
  version: 16,
  job: isRaw(file.job) ? { ...file.job, zone: null } : file.job,
  entries: list(file.entries).map((e) => {
    if (!isRaw(e)) return e;
    const { inside, ...rest } = e;
    return { ...rest, touches: typeof inside === 'string' ? [{ in: 'box', id: inside }] : [] };
  }),
  closings: [],
  proofs: list(file.proofs).map((p) => (isRaw(p) ? { ...p, feeds: 'not-shown' } : p)),
});

const STEPS: Record<number, (file: Raw) => Raw> = {
  1: fromVersion1,
  2: fromVersion2,
  3: fromVersion3,
  4: fromVersion4,
  5: fromVersion5,
  6: fromVersion6,
  7: fromVersion7,
  8: fromVersion8,
  9: fromVersion9,
  10: fromVersion10,
  11: fromVersion11,
  12: fromVersion12,
  13: fromVersion13,
  14: fromVersion14,
  15: fromVersion15,
};

/** Applies every step from the file's version up to the current one. */
export function migrate(file: Raw): Raw {
  let current = file;
  for (let version = Number(file.version); version < VERSION; version++) {
    const step = STEPS[version];
    if (!step) return current;
    current = step(current);
  }
  return current;
}
