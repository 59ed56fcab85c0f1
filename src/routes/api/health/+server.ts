import { json } from '@sveltejs/kit';
import { VERSION } from '#core/job/migrations.ts';

/** Alive, and which job file version it reads. */
export const GET = () => json({ status: 'ok', jobFileVersion: VERSION });
