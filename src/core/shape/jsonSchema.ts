import { MOST } from '../bot/limits.js';
import { NAME_PATTERN } from '../bot/document.js';
import type { Schema } from './yup.js';

/** A part of a JSON Schema (draft 7). */
export type JsonSchema = Record<string, unknown>;

/** What a shape tells of itself, besides what its library knows. */
interface Meta {
  /** What the library's own checks do not tell. */
  schema?: JsonSchema;
  /** A shape that is written once and referred to. */
  definition?: keyof typeof DEFINITIONS;
  description?: string;
  /** Of a list. */
  items?: Schema;
  most?: number;
  some?: boolean;
  /** Of a choice between shapes. */
  either?: Schema[];
}

const wording = { type: 'string', maxLength: MOST.wording };

/** Shapes that are referred to by name. */
export const DEFINITIONS = {
  name: { type: 'string', maxLength: MOST.name, pattern: NAME_PATTERN.source },
  level: { type: 'number', minimum: 0, maximum: 1 },
  cost: { type: 'number', minimum: 0, maximum: MOST.cost },
  wordings: { anyOf: [wording, { type: 'array', maxItems: MOST.variants, items: wording }] },
  text: {
    description: 'A wording, a list of variants, or either by language. An ICU message with slots in braces.',
    anyOf: [
      { $ref: '#/definitions/wordings' },
      {
        type: 'object',
        maxProperties: MOST.languages,
        additionalProperties: { $ref: '#/definitions/wordings' },
      },
    ],
  },
} satisfies Record<string, JsonSchema>;

/** What the library's checks of one kind say in a JSON Schema. */
const CHECKS: Record<string, (params: Record<string, unknown>, type: string) => JsonSchema> = {
  max: ({ max }, type) => (type === 'number' ? { maximum: max } : { maxLength: max }),
  min: ({ min }, type) => (type === 'number' ? { minimum: min } : { minLength: min }),
  matches: ({ regex }) => ({ pattern: (regex as RegExp).source }),
  integer: () => ({ type: 'integer' }),
};

const metaOf = (shape: Schema): Meta => (shape.spec.meta ?? {}) as Meta;

/** Whether a part with this shape must be there. */
function isRequired(shape: Schema): boolean {
  const { items, some } = metaOf(shape);
  return items ? some === true : shape.spec.optional === false;
}

function ofLibrary(shape: Schema): JsonSchema {
  const { type, tests, oneOf, nullable } = shape.describe() as {
    type: string;
    tests: { name?: string; params?: Record<string, unknown> }[];
    oneOf: unknown[];
    nullable: boolean;
  };
  const schema: JsonSchema = type === 'mixed' ? {} : { type };
  for (const { name, params } of tests) Object.assign(schema, CHECKS[name ?? '']?.(params ?? {}, type));
  // To the library a text that must be there must not be empty either.
  if (type === 'string' && tests.some(({ name }) => name === 'required')) schema['minLength'] = 1;
  if (oneOf.length > 0) schema['enum'] = oneOf;
  return nullable && schema['type'] ? { ...schema, type: [schema['type'], 'null'] } : schema;
}

function ofObject(shape: Schema & { fields: Record<string, Schema> }): JsonSchema {
  const fields = Object.entries(shape.fields);
  const required = fields.filter(([, field]) => isRequired(field)).map(([key]) => key);
  return {
    type: 'object',
    ...(required.length > 0 ? { required } : {}),
    additionalProperties: false,
    properties: Object.fromEntries(fields.map(([key, field]) => [key, jsonSchemaOf(field)])),
  };
}

function ofMeta(shape: Schema): JsonSchema | null {
  const { schema, definition, items, most, some, either } = metaOf(shape);
  if (schema) return schema;
  if (definition) return { $ref: `#/definitions/${definition}` };
  if (items) return { type: 'array', ...(some ? { minItems: 1 } : {}), maxItems: most, items: jsonSchemaOf(items) };
  return either ? { anyOf: either.map(jsonSchemaOf) } : null;
}

/** The JSON Schema of a shape; what is written once stands in `DEFINITIONS`. */
export function jsonSchemaOf(shape: Schema): JsonSchema {
  const { description } = metaOf(shape);
  const own = ofMeta(shape) ?? ('fields' in shape ? ofObject(shape as never) : ofLibrary(shape));
  const nullable = 'nullable' in shape.spec && shape.spec.nullable && !('type' in own && Array.isArray(own['type']));
  const whole = nullable ? { anyOf: [own, { type: 'null' }] } : own;
  return description === undefined ? whole : { ...whole, description };
}
