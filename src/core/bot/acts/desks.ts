import type { Desk } from '../document.js';
import { MOST } from '../limits.js';
import { actKind } from './act.js';
import { changed, named, replace, requireName } from './common.js';
import { change, localised, name, parts, text } from '../../shape/shapes.js';

const deskChange = change({ description: text(MOST.description).nullable(), handover: localised().nullable() });

export const DESK_ACTS = [
  actKind('addDesk', parts({ name: name() }), (document, act) => {
    const own = requireName(act.name, 'desk', document.desks);
    return { document: { ...document, desks: [...document.desks, { name: own }] }, label: `add desk ${own}` };
  }),

  actKind('changeDesk', parts({ name: name(), to: deskChange }), (document, act) => {
    const desk = changed<Desk>(named(document.desks, act.name, 'desk'), act.to, ['description', 'handover']);
    return {
      document: { ...document, desks: replace(document.desks, act.name, () => desk) },
      label: `change desk ${act.name}`,
    };
  }),

  actKind('deleteDesk', parts({ name: name() }), (document, act) => {
    named(document.desks, act.name, 'desk');
    return {
      document: { ...document, desks: document.desks.filter((desk) => desk.name !== act.name) },
      label: `delete desk ${act.name}`,
    };
  }),
] as const;
