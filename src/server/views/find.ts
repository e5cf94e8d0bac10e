import { findInBot } from '../../core/bot/find.js';
import type { Found } from '../../core/contract/find.js';
import type { Application } from '../application.js';
import { listTestSets } from '../repositories/tests.js';
import { listWalkthroughs } from '../repositories/walkthroughs.js';

/** As many as a list shows. */
const MOST = 24;

/** What belongs to a bot and has some words in its name or text. */
export async function findView({ bots, database }: Application, id: number, text: string): Promise<Found[]> {
  const { document } = await bots.get(id);
  const others: Found[] = [
    ...(await listTestSets(database, id)).map((set): Found => ({
      kind: 'test set',
      label: set.name,
      hint: `${set.lines} lines`,
      to: `prove?set=${set.id}`,
    })),
    ...(await listWalkthroughs(database, id)).map(({ walkthrough }): Found => ({
      kind: 'walkthrough',
      label: walkthrough.name,
      hint: '',
      to: 'try',
    })),
  ];
  return findInBot(document, text, others, MOST);
}
