import { json } from '@sveltejs/kit';
import { jobFileJsonSchema } from '#core/formats/jsonSchema.ts';

/** JSON Schema of the job file. */
export const GET = () =>
  json(jobFileJsonSchema(), { headers: { 'content-type': 'application/schema+json' } });
