/**
 * `npm run mutants`: changes one thing at a time where a wrong line can hurt, runs the nearest tests, and lists what survived.
 * A group, `all` or a file in part may be named, and how many of each file, drawn by a seed:
 * `npm run mutants -- gates`, `npm run mutants -- all --sample 20 --seed 3`. It ends with status 1 where one survived in a
 * group that may have none.
 *
 * All mutants of a file stand in one copy of it, each behind a number; a run of the tests with that number in its
 * environment has that one. So each test is bundled once a file, nothing is compiled anew, and this checkout is not touched.
 */
import { spawn } from 'node:child_process';
import { cpSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { build } from 'esbuild';
import ts from 'typescript';
import { randomFrom } from '#core/planner/search/random.ts';

interface Group {
  files: readonly string[];
  /** The nearest tests, quickest first. */
  tests: readonly string[];
  /** Shares that a number is changed by. */
  by: readonly number[];
  /** None may survive. */
  none: boolean;
}
const inside = (folder: string, of: string): string[] =>
  of.split(' ').map((f) => `src/core/${folder}/${f}.ts`);
const filesIn = (folder: string, end: string): string[] =>
  readdirSync(`src/core/${folder}`)
    .filter((f) => f.endsWith(end))
    .sort()
    .map((f) => `src/core/${folder}/${f}`);
const testsIn = (folder: string): string[] => filesIn(folder, '.test.ts');
const THRESHOLDS = [0.9, 1.1];

const GROUPS: Readonly<Record<string, Group>> = {
  gates: {
    files: inside('records', 'gates acts proof points sources people life alterations open panel neutrals'),
    tests: inside(
      'records',
      'actsEdges.test proofEdges.test life.test open.test panel.test neutrals.test gates.test proof.test measuring.test onlyProof.test proofNetwork.test',
    ),
    by: THRESHOLDS,
    none: true,
  },
  order: {
    files: inside('job', 'order unite'),
    tests: inside('job', 'orderTables.test order.test'),
    by: THRESHOLDS,
    none: true,
  },
  tables: {
    files: filesIn('tables', '.ts').filter((f) => !f.endsWith('.test.ts')),
    tests: inside('tables', 'secondSource.test burial.test conductors.test editions.test'),
    // Where the shallower or the smaller counts, more of the other changes nothing.
    by: [0.98],
    none: true,
  },
  measuring: {
    files: inside('records', 'measuring deviceTests trim'),
    tests: testsIn('records'),
    by: THRESHOLDS,
    none: false,
  },
  verdicts: {
    files: inside('diagnosis', 'verdict beyond joints legs besides'),
    tests: [...inside('diagnosis', 'legs.test verdict.test'), ...inside('records', 'sequence.test')],
    by: THRESHOLDS,
    none: false,
  },
  warnings: {
    files: inside('diagnosis/hunt', 'warnings asking measures'),
    tests: inside('diagnosis/hunt', 'warnings.test hunt.test'),
    by: THRESHOLDS,
    none: false,
  },
  effects: {
    files: inside('effects', 'energized guarding shown'),
    tests: testsIn('effects'),
    by: THRESHOLDS,
    none: false,
  },
  protection: {
    files: inside('protection', 'settle sensors'),
    tests: testsIn('protection'),
    by: THRESHOLDS,
    none: false,
  },
  fill: { files: inside('boxes', 'fill'), tests: inside('boxes', 'fill.test'), by: [1.02], none: false },
  guards: {
    files: [
      ...inside('procedures', 'engine goesDark'),
      ...inside('procedures/parts', 'panelDead box frame breaker'),
    ],
    tests: inside('procedures', 'procedures.test decisions.test breakerSearch.test'),
    by: THRESHOLDS,
    none: false,
  },
  migrations: {
    files: inside('job', 'migrations'),
    tests: inside('job', 'frozen.test file.test names.test'),
    by: THRESHOLDS,
    none: false,
  },
};

/** Changes that change nothing, by what they say: the two are never equal there, or the same comes out where they are. */
const NO_CHANGE: readonly RegExp[] = [
  // A reading of the source is none of what was relied on.
  /^i < first → /,
  // The newest of two that are of one moment is of that moment.
  /^p\.at > last → /,
  // What is kept from before is worked out again where it is not.
  /^if \(known\) never/,
  /^if \(known\.count === known\.rows\.length && numberOf/,
  /^known\.count === known\.rows\.length → /,
  // Numbers begin at 1, and rows of one number may stand either way.
  /^row\?\.stamp\?\.n \?\? 0: /,
  /^n: 0: 0 → 1/,
  /^count: 0: 0 → 1/,
  /^numberOf\((r|row)\) [<>]= /,
  /^bare\.length > 0 → .* >= /,
  // Fields of one object have different names, and a sort asks only which comes first.
  /^a < b → \(\(a\) <= /,
  /^a < b \? -1 : 1: 1 → 0/,
];

/** A change of one place in a file. */
interface Mutant {
  from: number;
  to: number;
  becomes: string;
  line: number;
  words: string;
}

const SWAPS: Readonly<Partial<Record<ts.SyntaxKind, string>>> = {
  [ts.SyntaxKind.LessThanToken]: '<=',
  [ts.SyntaxKind.LessThanEqualsToken]: '<',
  [ts.SyntaxKind.GreaterThanToken]: '>=',
  [ts.SyntaxKind.GreaterThanEqualsToken]: '>',
  [ts.SyntaxKind.EqualsEqualsEqualsToken]: '!==',
  [ts.SyntaxKind.ExclamationEqualsEqualsToken]: '===',
  [ts.SyntaxKind.AmpersandAmpersandToken]: '||',
  [ts.SyntaxKind.BarBarToken]: '&&',
  [ts.SyntaxKind.AsteriskToken]: '/',
  [ts.SyntaxKind.SlashToken]: '*',
};
const METHODS: Readonly<Record<string, string>> = { every: 'some', some: 'every', max: 'min', min: 'max' };

/** Whether a number is what a comparison of two gives, a step along a list, or a rank in a record of them. */
const isOfOrder = ({ parent }: ts.NumericLiteral): boolean =>
  ts.isPrefixUnaryExpression(parent) ||
  ts.isConditionalExpression(parent) ||
  (ts.isPropertyAssignment(parent) && Number.isInteger(Number(parent.initializer.getText()))) ||
  (ts.isBinaryExpression(parent) &&
    [ts.SyntaxKind.PlusToken, ts.SyntaxKind.MinusToken].includes(parent.operatorToken.kind));

/** Every mutant of a file. */
function mutantsOf(text: string, by: readonly number[]): Mutant[] {
  const source = ts.createSourceFile('x.ts', text, ts.ScriptTarget.Latest, true);
  const found: Mutant[] = [];
  const add = (node: ts.Node, becomes: string, words: string) => {
    const from = node.getStart();
    found.push({
      from,
      to: node.end,
      becomes,
      line: source.getLineAndCharacterOfPosition(from).line + 1,
      words,
    });
  };
  const visit = (node: ts.Node): void => {
    if (ts.isTypeNode(node) || ts.isInterfaceDeclaration(node) || ts.isImportDeclaration(node)) return;
    const say = (becomes: string) =>
      `${node.getText().replace(/\s+/g, ' ').slice(0, 70)} → ${becomes.replace(/\s+/g, ' ').slice(0, 70)}`;
    if (ts.isBinaryExpression(node)) {
      const other = SWAPS[node.operatorToken.kind];
      if (other) {
        // Mixed without parentheses `??` takes neither.
        const becomes = `((${node.left.getText()}) ${other} (${node.right.getText()}))`;
        add(node, becomes, say(becomes));
      }
    } else if (ts.isNumericLiteral(node) && !ts.isPropertyAssignment(node.parent.parent ?? node))
      number(node);
    else if (ts.isNumericLiteral(node)) {
      if (!ts.isPropertyAssignment(node.parent) || node.parent.name !== node) number(node);
    } else if (node.kind === ts.SyntaxKind.TrueKeyword) add(node, 'false', say('false'));
    else if (node.kind === ts.SyntaxKind.FalseKeyword) add(node, 'true', say('true'));
    else if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
      add(node, `(${node.operand.getText()})`, say(node.operand.getText()));
    else if (
      ts.isCallExpression(node) &&
      ts.isPropertyAccessExpression(node.expression) &&
      METHODS[node.expression.name.text]
    ) {
      const { expression, name: method } = node.expression;
      const rest = node.getText().slice(node.expression.getText().length);
      const becomes = `${expression.getText()}.${METHODS[method.text]}${rest}`;
      add(node, becomes, say(`${METHODS[method.text]}${rest}`));
    } else if (
      ts.isArrayLiteralExpression(node) &&
      node.elements.length > 1 &&
      node.elements.every((e) => ts.isStringLiteral(e))
    )
      node.elements.forEach((out) => {
        const becomes = `[${node.elements
          .filter((e) => e !== out)
          .map((e) => e.getText())
          .join(', ')}]`;
        add(node, becomes, `without ${out.getText()} in ${node.getText().replace(/\s+/g, ' ').slice(0, 60)}`);
      });
    else if (ts.isIfStatement(node))
      add(
        node.expression,
        'false',
        `if (${node.expression.getText().replace(/\s+/g, ' ').slice(0, 70)}) never`,
      );
    ts.forEachChild(node, visit);
  };
  const number = (node: ts.NumericLiteral) => {
    // A name of a property, as a gauge or an edition, is no figure.
    if (
      (ts.isPropertyAssignment(node.parent) && node.parent.name === node) ||
      ts.isElementAccessExpression(node.parent)
    )
      return;
    const value = Number(node.text);
    // Of a sign, a place in a list or a rank only a whole step makes another one.
    const isStep = (value === 1 || value === 2) && isOfOrder(node);
    for (const share of value === 0 || isStep ? [1] : by) {
      const changed = value === 0 ? 1 : isStep ? value - 1 : Number((value * share).toPrecision(6));
      const becomes = String(changed === value ? value + 1 : changed);
      add(
        node,
        becomes,
        `${node.parent.getText().replace(/\s+/g, ' ').slice(0, 70)}: ${node.text} → ${becomes}`,
      );
    }
  };
  visit(source);
  return found;
}

/** The file with all of some mutants in it, each behind its number. */
function withAll(text: string, mutants: readonly Mutant[]): string {
  interface Span {
    from: number;
    to: number;
    list: { n: number; becomes: string }[];
  }
  const spans: Span[] = [];
  mutants.forEach(({ from, to, becomes }, n) => {
    const known = spans.find((s) => s.from === from && s.to === to);
    if (known) known.list.push({ n, becomes });
    else spans.push({ from, to, list: [{ n, becomes }] });
  });
  // Outer ones hold the inner ones in what they are without a change.
  const render = (from: number, to: number, among: readonly Span[]): string => {
    const tops = among
      .filter(
        (s) =>
          !among.some((o) => o !== s && o.from <= s.from && o.to >= s.to && o.to - o.from > s.to - s.from),
      )
      .sort((a, b) => a.from - b.from);
    let made = '';
    let at = from;
    for (const top of tops) {
      made += text.slice(at, top.from);
      const inner = among.filter((s) => s !== top && s.from >= top.from && s.to <= top.to);
      const own = render(top.from, top.to, inner);
      made += `(${top.list.map(({ n, becomes }) => `__mutant === ${n} ? (${becomes}) : `).join('')}(${own}))`;
      at = top.to;
    }
    return made + text.slice(at, to);
  };
  return `const __mutant = Number(process.env.HEKTO_MUTANT ?? -1);\n${render(0, text.length, spans)}`;
}

/** Each test in one file with what it tests, beside where it stands: what it reads beside itself is found. */
async function bundled(folder: string, tests: readonly string[]): Promise<string[]> {
  await build({
    absWorkingDir: folder,
    entryPoints: [...tests],
    outdir: '.',
    outbase: '.',
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    packages: 'external',
    tsconfigRaw: {},
    logLevel: 'warning',
  });
  return tests.map((test) => test.replace(/\.ts$/, '.mjs'));
}

/** Whether a test fails with a mutant; it is ended as soon as one does. */
function fails(folder: string, test: string, n: number, after: number): Promise<boolean> {
  return new Promise((done) => {
    const child = spawn(process.execPath, ['--test-reporter=spec', test], {
      cwd: folder,
      env: { ...process.env, HEKTO_MUTANT: String(n), NODE_OPTIONS: '' },
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    let over = false;
    const end = (failed: boolean) => {
      if (over) return;
      over = true;
      clearTimeout(clock);
      child.kill('SIGKILL');
      done(failed);
    };
    // One that never ends is found out as well.
    const clock = setTimeout(() => end(true), after);
    child.stdout.on('data', (piece: Buffer) => {
      if (/^\s*✖ /m.test(piece.toString())) end(true);
    });
    child.on('close', (code) => end(code !== 0));
  });
}

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { sample: { type: 'string' }, seed: { type: 'string', default: '1' } },
});
const [asked = 'all'] = positionals;
const sample = values.sample === undefined ? Infinity : Number(values.sample);
const random = randomFrom(Number(values.seed));
const chosen = Object.entries(GROUPS).flatMap(([name, group]) => {
  const files =
    asked === 'all' || asked === name ? group.files : group.files.filter((f) => f.includes(asked));
  return files.map((file) => ({ name, group, file }));
});
if (chosen.length === 0)
  throw new Error(`expected all, ${Object.keys(GROUPS).join(', ')}, or a file of theirs`);

const folder = mkdtempSync(join(tmpdir(), 'hekto-mutants-'));
const kept = /(^|\/)(node_modules|build|\.svelte-kit|\.git|scratch|failures)(\/|$)/;
cpSync('.', folder, { recursive: true, filter: (path) => !kept.test(path) });
symlinkSync(resolve('node_modules'), join(folder, 'node_modules'));
const LANES = 2;
let survivors = 0;
let forbidden = 0;
let all = 0;
try {
  for (const { name, group, file } of chosen) {
    const text = readFileSync(file, 'utf8');
    const mutants = mutantsOf(text, group.by);
    const numbers = mutants.map((_, n) => n);
    while (numbers.length > sample) numbers.splice(Math.floor(random() * numbers.length), 1);
    if (numbers.length === 0) continue;
    writeFileSync(join(folder, file), withAll(text, mutants));
    const tests = await bundled(folder, group.tests);
    const times = new Map<string, number>();
    for (const test of tests) {
      const began = performance.now();
      if (await fails(folder, test, -1, 600_000))
        throw new Error(`${test} fails without a mutant of ${file}`);
      times.set(test, 3 * (performance.now() - began) + 20_000);
    }
    const alive: number[] = [];
    const queue = [...numbers];
    const lane = async () => {
      for (let n = queue.shift(); n !== undefined; n = queue.shift()) {
        let killed = false;
        for (const test of tests) if ((killed = await fails(folder, test, n, times.get(test)!))) break;
        if (!killed && !NO_CHANGE.some((same) => same.test(mutants[n]!.words))) alive.push(n);
      }
    };
    await Promise.all(Array.from({ length: LANES }, lane));
    all += numbers.length;
    survivors += alive.length;
    if (group.none) forbidden += alive.length;
    console.log(`${name}: ${file}: ${numbers.length - alive.length} of ${numbers.length} found out`);
    for (const n of alive.sort((a, b) => a - b))
      console.log(`  survived, line ${mutants[n]!.line}: ${mutants[n]!.words}`);
    writeFileSync(join(folder, file), text);
  }
} finally {
  rmSync(folder, { recursive: true, force: true });
}
console.log(`${all - survivors} of ${all} found out, ${survivors} survived`);
process.exit(forbidden > 0 ? 1 : 0);
