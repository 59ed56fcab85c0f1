#!/usr/bin/env node
// Starts the TypeScript command with the loader the tests use.
import { register } from 'tsx/esm/api';

register();
const { main } = await import('./main.ts');
process.exitCode = await main(process.argv.slice(2));
