import { ENGINE_TEXTS, type TextName } from '../../say/texts.js';
import type { BotDocument, Desk, Localised, NoMatchSettings } from '../document.js';
import { changed, named, replace, requireName, type Change, type Edited } from './common.js';

export type SettingsChange = Partial<
  Pick<BotDocument, 'name' | 'languages' | 'timeZone' | 'region' | 'greeting' | 'gate'>
>;
export type NoMatchChange = Change<NoMatchSettings>;
export type DeskChange = Change<Omit<Desk, 'name'>>;

export function changeSettings(document: BotDocument, to: SettingsChange): Edited {
  return { document: { ...document, ...to }, label: 'change settings' };
}

/** Gives a sentence of the engine another wording; `null` takes the bot's own away, and the default is said again. */
export function changeText(document: BotDocument, name: TextName, to: Localised | null): Edited {
  const { [name]: _, ...others } = document.texts;
  const texts = to === null ? others : { ...others, [name]: to };
  return { document: { ...document, texts }, label: `change the text “${ENGINE_TEXTS[name].when.toLowerCase()}”` };
}

export function changeNoMatch(document: BotDocument, to: NoMatchChange): Edited {
  return {
    document: { ...document, noMatch: changed(document.noMatch, to, ['desk']) },
    label: 'change what happens at no match',
  };
}

export function addDesk(document: BotDocument, wanted: string): Edited {
  const name = requireName(wanted, 'desk', document.desks);
  return { document: { ...document, desks: [...document.desks, { name }] }, label: `add desk ${name}` };
}

export function changeDesk(document: BotDocument, name: string, to: DeskChange): Edited {
  const desk = changed<Desk>(named(document.desks, name, 'desk'), to, ['description', 'handover']);
  return {
    document: { ...document, desks: replace(document.desks, name, () => desk) },
    label: `change desk ${name}`,
  };
}

export function deleteDesk(document: BotDocument, name: string): Edited {
  named(document.desks, name, 'desk');
  return {
    document: { ...document, desks: document.desks.filter((desk) => desk.name !== name) },
    label: `delete desk ${name}`,
  };
}
