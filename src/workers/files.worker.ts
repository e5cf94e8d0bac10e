import { readFileOf } from '../server/files/read.js';

export default readFileOf;
