import { encodeIn } from '../server/encoder/thread.js';

export default encodeIn;
