import { huntGround } from '#core/diagnosis/hunt/testing.ts';
import { randomFrom } from '#core/planner/search/random.ts';
import { Hunt } from '#core/diagnosis/hunt/hunt.ts';
const groundOf = (seed: number) => huntGround(4 + Math.floor(8 * randomFrom(seed * 7 + 1)()), seed);
const seed = Number(process.argv[2]);
const hunt = new Hunt(groundOf(seed));
const v = (stop: number, amps: number, hn: number, hg: number, ng: number) => ({kind:'volts' as const, stop, volts:{hotNeutral:hn,hotGround:hg,neutralGround:ng,hotHot:null}, reference:null, amps, meterOhms:3000});
const list: any[] = seed === 3010 ? [{kind:'works',stop:6,does:'comes and goes'}, v(8,10,90.8,93.5,2.8), v(0,10,105.5,106,.4), v(2,0,102.3,102.3,.4), v(9,0,111,111.1,.8), {kind:'elsewhere',does:'some dim, some bright'}, {kind:'legs',a:108,b:136.3,loaded:[100.4,143.7]}]
 : [v(1,0,120.4,120.2,.3), v(7,0,113.2,113.7,.8), v(6,0,117.4,118.2,1.4), v(6,10,107.6,110.2,3), v(7,10,99.3,102.7,3.3),v(5,10,95.3,97.9,2.9),{kind:'legs',a:112.5,b:122.5,loaded:[108,127.7]}];
const ev = list.map((finding, k) => ({id: 'x'+k, after: 0, finding}));
hunt.diagnose(ev);
const b = hunt.branches[0]!;
console.log('leg', hunt.ground.leg);
for (const key of ['service service-neutral','panel poor-breaker','service utility','nowhere nothing']) {
  b.predictions.causes.forEach((cause, c) => { if (cause.key !== key) return;
    console.log(key, 'prior', b.priors[c]!.toFixed(2), JSON.stringify(cause.faults));
    for (const e of ev) console.log('   ', JSON.stringify(e.finding).slice(0,90), [...b.of(e).subarray(b.first[c]!, b.first[c+1]!)].map(x=>x.toFixed(1)).join(' '));
    for (let s=0;s<4;s++) console.log('      scene', s, 'legs', [...b.predictions.legs[s]!.subarray(4*c,4*c+4)].map(x=>x.toFixed(1)).join(' '), 'HN', b.predictions.at(s,c,2,0).toFixed(1));
  });
}
