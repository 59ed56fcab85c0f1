/** JSON Schema (2020-12) of the job file, derived from the Yup schemas. */
import type {
  SchemaDescription,
  SchemaFieldDescription,
  SchemaObjectDescription,
  SchemaInnerTypeDescription,
} from 'yup';
import { fileSchema } from '#core/job/file.ts';
import { VERSION } from '#core/job/migrations.ts';

type JsonSchema = Record<string, unknown>;

const BOUNDS: Record<string, Record<string, string>> = {
  number: { min: 'minimum', max: 'maximum' },
  string: { min: 'minLength', max: 'maxLength' },
  array: { min: 'minItems', max: 'maxItems' },
};

function convert(description: SchemaFieldDescription): JsonSchema {
  const d = description as SchemaDescription;
  const values = d.oneOf as unknown[];
  if (values.length > 0) return { enum: values };
  let type: string = d.type;
  const out: JsonSchema = {};
  for (const { name, params } of d.tests) {
    const bound = name === undefined ? undefined : BOUNDS[d.type]?.[name];
    if (bound) out[bound] = params?.[name!];
    if (name === 'matches') out.pattern = (params?.regex as RegExp).source;
    if (name === 'integer') type = 'integer';
    if (name === 'three') Object.assign(out, { minItems: 3, maxItems: 3 });
  }
  if (d.type === 'array')
    out.items = convert((d as SchemaInnerTypeDescription).innerType as SchemaFieldDescription);
  if (d.type === 'object') {
    const { fields } = d as SchemaObjectDescription;
    out.properties = Object.fromEntries(
      Object.entries(fields).map(([name, field]) => [name, convert(field)]),
    );
    out.required = Object.keys(fields);
    out.additionalProperties = false;
  }
  return { type: d.nullable ? [type, 'null'] : type, ...out };
}

export function jobFileJsonSchema(): JsonSchema {
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: `Hekto job file, version ${VERSION}`,
    ...convert(fileSchema.describe()),
  };
}
