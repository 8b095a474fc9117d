// Writes the JSON Schema of a scene's document into the docs.
import { writeFile } from 'node:fs/promises';
import { format } from 'prettier';
import { sceneJsonSchema } from '@/core/scene/json-schema';

const FILE = 'docs/scene.schema.json';
await writeFile(FILE, await format(JSON.stringify(sceneJsonSchema()), { parser: 'json', printWidth: 110 }));
