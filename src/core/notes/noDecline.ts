import { variants } from '../bot/localised.js';
import { spokenIn, type Check } from './note.js';

const WORDS = 'What shall I change?';

export const noDecline: Check = {
  name: 'nothing said at a no',
  form: ({ document }, { name, confirm, decline, onNo }) => {
    const spoken = spokenIn(document);
    if (variants(confirm, spoken).length === 0 || variants(decline, spoken).length > 0) return [];
    return [
      {
        text: 'Nothing is written for a “no” to the read-back.',
        weight: 'weak',
        ...(onNo === 'leave'
          ? {}
          : { mend: { words: `Write “${WORDS}”`, act: { do: 'changeForm', name, to: { decline: WORDS } } } }),
      },
    ];
  },
};
