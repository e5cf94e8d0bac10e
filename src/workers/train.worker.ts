import { TrainingThread } from '../server/training/thread.js';

const thread = new TrainingThread();

export default (task: Parameters<TrainingThread['train']>[0]) => thread.train(task);
