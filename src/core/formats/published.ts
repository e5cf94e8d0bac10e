import { ACTS } from '../bot/acts/index.js';
import { botShape } from '../bot/botShape.js';
import { DEFINITIONS, jsonSchemaOf, type JsonSchema } from '../shape/jsonSchema.js';

const DRAFT = 'http://json-schema.org/draft-07/schema#';

/** The JSON Schema of bot files. */
const botFileSchema = (): JsonSchema => ({
  $schema: DRAFT,
  title: 'Reed Gate bot file',
  description:
    'One document that describes a bot wholly, as JSON or YAML. References between its parts are checked when it is read.',
  ...jsonSchemaOf(botShape),
  definitions: DEFINITIONS,
});

function actSchema({ name, shape }: (typeof ACTS)[number]): JsonSchema {
  const { required = [], properties, ...rest } = jsonSchemaOf(shape) as { required?: string[]; properties: JsonSchema };
  return { title: name, ...rest, required: ['do', ...required], properties: { do: { const: name }, ...properties } };
}

/** The JSON Schema of acts upon a bot, one for each kind. */
const actsSchema = (): JsonSchema => ({
  $schema: DRAFT,
  title: 'Reed Gate acts',
  description: 'One act of a person upon a bot. An act names what it changes and nothing beside it.',
  oneOf: ACTS.map(actSchema),
  definitions: DEFINITIONS,
});

const written = (schema: JsonSchema): string => `${JSON.stringify(schema, null, 2)}\n`;

/** The JSON Schemas that the shapes give, by the file they are published in. */
export const publishedSchemas = (): Record<string, string> => ({
  'docs/bot-file.schema.json': written(botFileSchema()),
  'docs/acts.schema.json': written(actsSchema()),
});
