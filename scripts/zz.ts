import { huntGround, makeTruth, play, randomTrouble, type Trouble } from '#core/diagnosis/hunt/testing.ts';
import { randomFrom } from '#core/planner/search/random.ts';
const groundOf = (seed: number) => huntGround(4 + Math.floor(8 * randomFrom(seed * 7 + 1)()), seed);
const ALONE: readonly Trouble['what'][] = ['overload', 'appliance', 'lost-leg', 'service-neutral', 'nothing'];
function two(seed: number): Trouble[] {
  const random = randomFrom(seed * 7 + 2);
  const ground = groundOf(seed);
  const one = () => { let t = randomTrouble(ground, random); while (ALONE.includes(t.what)) t = randomTrouble(ground, random); return t; };
  return [one(), one()];
}
const pairs = process.argv[2] === '2';
for (const s of process.argv.slice(3)) {
 const seed = Number(s);
 const random = randomFrom(seed * 7 + 2); const ground = groundOf(seed);
 const list = pairs ? two(seed) : [randomTrouble(ground, random)];
 const t = makeTruth(ground, list, seed);
 const p = play(t, process.env.TRACE ? { trace: (x: string) => console.log(x.slice(0, 420)) } : {});
 console.log('==', seed, p.right, JSON.stringify(list), 'stops', ground.run.stops.length, 'mended', p.mended.join('|'), p.none ? 'NONE':'');
 for (const x of p.steps) console.log('   ', x.said, JSON.stringify((x as any).finding ?? (x as any).found ?? '').slice(0,200));
}
