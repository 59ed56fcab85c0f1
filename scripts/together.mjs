/** Test files in one process: what several short ones test is loaded once. */
import { pathToFileURL } from 'node:url';

for (const file of process.argv.slice(2)) await import(pathToFileURL(file).href);
