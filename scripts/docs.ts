/** `npm run docs`: writes what is generated: the catalogues of rules and procedures, the demo job's file, the picture of the folders. */
import { writeFileSync } from 'node:fs';
import { tamarackJob } from '../demo/tamarack.ts';
import { rulesPage } from '#core/handover/rulesPage.ts';
import { procedureCatalogue } from '#core/procedures/catalogue.ts';
import { serialize } from '#core/job/file.ts';
import { structure } from './structure.ts';

const root = new URL('../', import.meta.url);
writeFileSync(new URL('docs/rules.md', root), rulesPage());
writeFileSync(new URL('docs/procedures.md', root), procedureCatalogue());
writeFileSync(new URL('demo/tamarack-court.json', root), serialize(tamarackJob()));
writeFileSync(new URL('docs/structure.svg', root), structure(root.pathname));
