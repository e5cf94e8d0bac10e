/** A place of work, in the order of the job. */
export interface Stage {
  /** Alt and this digit lead to it. */
  key: number;
  name: string;
  path: string;
}

/** The stages that there are. */
export const STAGES: readonly Stage[] = [
  { key: 2, name: 'Teach', path: 'teach' },
  { key: 3, name: 'Say', path: 'say' },
  { key: 4, name: 'Gate', path: 'gate' },
  { key: 5, name: 'Try', path: 'try' },
  { key: 6, name: 'Prove', path: 'prove' },
];

export const stagePath = (botId: number, stage: Stage): string => `/bots/${botId}/${stage.path}`;
