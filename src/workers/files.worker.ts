import { doFileTask } from '../server/files/read.js';

export default doFileTask;
