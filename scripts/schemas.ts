import { writeFileSync } from 'node:fs';
import { publishedSchemas } from '../src/core/formats/published.js';

for (const [file, text] of Object.entries(publishedSchemas())) writeFileSync(file, text);
