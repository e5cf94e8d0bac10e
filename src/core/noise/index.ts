import { byEar } from './byEar.js';
import { fillers } from './fillers.js';
import { languages } from './languages.js';
import { misheard } from './misheard.js';
import type { Noise } from './noise.js';
import { story } from './story.js';
import { typing } from './typing.js';
import { unpunctuated } from './unpunctuated.js';

/** All noises. To add one: a file here, and a line in this list. */
export const NOISES: readonly Noise[] = [typing, byEar, unpunctuated, fillers, misheard, story, languages];
