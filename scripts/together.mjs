/** Several short test files in one process: what they test is loaded once. */
import { pathToFileURL } from 'node:url';

for (const file of process.argv.slice(2)) await import(pathToFileURL(file).href);
