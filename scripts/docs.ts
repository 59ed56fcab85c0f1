/** `npm run docs`: writes the generated parts of docs/. */
import { writeFileSync } from 'node:fs';
import { catalogue } from '../src/core/code/catalogue.ts';

writeFileSync(new URL('../docs/rules.md', import.meta.url), catalogue());
