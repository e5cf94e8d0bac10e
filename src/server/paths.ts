import path from 'node:path';

/** The folder of the user's data. */
export const dataFolder = (): string => process.env['REED_GATE_DATA'] ?? './data';

/** The folder of model files within a data folder. */
export const modelFolder = (folder = dataFolder()): string => path.join(folder, 'models');

/** The database within a data folder. */
export const databaseFile = (folder = dataFolder()): string => path.join(folder, 'reed-gate.sqlite');
