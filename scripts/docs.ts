/** `npm run docs`: writes what is generated: the rule catalogue and the demo job's file. */
import { writeFileSync } from 'node:fs';
import { tamarackJob } from '../demo/tamarack.ts';
import { catalogue } from '#core/code/catalogue.ts';
import { serialize } from '#core/job/file.ts';

const root = new URL('../', import.meta.url);
writeFileSync(new URL('docs/rules.md', root), catalogue());
writeFileSync(new URL('demo/tamarack-court.json', root), serialize(tamarackJob()));
