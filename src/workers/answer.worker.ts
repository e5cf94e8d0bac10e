import { doTask } from '../server/answering/thread.js';

export default doTask;
