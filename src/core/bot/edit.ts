import type { TextName } from '../say/texts.js';
import type { BotDocument, Entity, ListValue, Localised, Slot } from './document.js';
import { EditError, type Edited } from './edits/common.js';
import * as entities from './edits/entities.js';
import * as forms from './edits/forms.js';
import * as intents from './edits/intents.js';
import * as settings from './edits/settings.js';
import { validateReferences, withMainForms } from './validate.js';

export { EditError, type Edited } from './edits/common.js';
export type { EntityChange } from './edits/entities.js';
export type { FormChange, SlotChange } from './edits/forms.js';
export type { IntentChange } from './edits/intents.js';
export type { NoMatchChange, SettingsChange } from './edits/settings.js';

/**
 * One act of a person upon a bot. An act names what it changes and nothing beside it, so that two acts that follow each
 * other fast, or from two windows, both stand.
 */
export type Edit =
  | { do: 'addIntent'; name: string; description?: string }
  | { do: 'changeIntent'; name: string; to: intents.IntentChange }
  | { do: 'deleteIntents'; names: string[] }
  | { do: 'addUtterances'; intent: string; at?: number; utterances: string[] }
  | { do: 'changeUtterance'; intent: string; row: intents.RowReference; to: string }
  | { do: 'deleteUtterances'; intent: string; rows: intents.RowReference[] }
  | { do: 'moveUtterances'; intent: string; rows: intents.RowReference[]; to: string }
  | { do: 'addEntity'; entity: Entity }
  | { do: 'changeEntity'; name: string; to: entities.EntityChange }
  | { do: 'deleteEntity'; name: string }
  | { do: 'addValues'; entity: string; values: ListValue[] }
  | { do: 'changeValue'; entity: string; value: string; to: Partial<ListValue> }
  | { do: 'deleteValues'; entity: string; values: string[] }
  | { do: 'addForm'; name: string; intent?: string }
  | { do: 'changeForm'; name: string; to: forms.FormChange }
  | { do: 'deleteForm'; name: string }
  | { do: 'addSlot'; form: string; slot: Slot }
  | { do: 'changeSlot'; form: string; slot: string; to: forms.SlotChange }
  | { do: 'renameSlot'; form: string; from: string; to: string }
  | { do: 'moveSlot'; form: string; slot: string; by: number }
  | { do: 'deleteSlot'; form: string; slot: string }
  | { do: 'addDesk'; name: string }
  | { do: 'changeDesk'; name: string; to: settings.DeskChange }
  | { do: 'deleteDesk'; name: string }
  | { do: 'changeNoMatch'; to: settings.NoMatchChange }
  | { do: 'changeText'; text: TextName; to: Localised | null }
  | { do: 'changeSettings'; to: settings.SettingsChange };

function act(document: BotDocument, edit: Edit): Edited {
  switch (edit.do) {
    case 'addIntent':
      return intents.addIntent(document, edit.name, edit.description);
    case 'changeIntent':
      return intents.changeIntent(document, edit.name, edit.to);
    case 'deleteIntents':
      return intents.deleteIntents(document, edit.names);
    case 'addUtterances':
      return intents.addUtterances(document, edit.intent, edit.utterances, edit.at);
    case 'changeUtterance':
      return intents.changeUtterance(document, edit.intent, edit.row, edit.to);
    case 'deleteUtterances':
      return intents.deleteUtterances(document, edit.intent, edit.rows);
    case 'moveUtterances':
      return intents.moveUtterances(document, edit.intent, edit.rows, edit.to);
    case 'addEntity':
      return entities.addEntity(document, edit.entity);
    case 'changeEntity':
      return entities.changeEntity(document, edit.name, edit.to);
    case 'deleteEntity':
      return entities.deleteEntity(document, edit.name);
    case 'addValues':
      return entities.addValues(document, edit.entity, edit.values);
    case 'changeValue':
      return entities.changeValue(document, edit.entity, edit.value, edit.to);
    case 'deleteValues':
      return entities.deleteValues(document, edit.entity, edit.values);
    case 'addForm':
      return forms.addForm(document, edit.name, edit.intent);
    case 'changeForm':
      return forms.changeForm(document, edit.name, edit.to);
    case 'deleteForm':
      return forms.deleteForm(document, edit.name);
    case 'addSlot':
      return forms.addSlot(document, edit.form, edit.slot);
    case 'changeSlot':
      return forms.changeSlot(document, edit.form, edit.slot, edit.to);
    case 'renameSlot':
      return forms.renameSlot(document, edit.form, edit.from, edit.to);
    case 'moveSlot':
      return forms.moveSlot(document, edit.form, edit.slot, edit.by);
    case 'deleteSlot':
      return forms.deleteSlot(document, edit.form, edit.slot);
    case 'addDesk':
      return settings.addDesk(document, edit.name);
    case 'changeDesk':
      return settings.changeDesk(document, edit.name, edit.to);
    case 'deleteDesk':
      return settings.deleteDesk(document, edit.name);
    case 'changeNoMatch':
      return settings.changeNoMatch(document, edit.to);
    case 'changeText':
      return settings.changeText(document, edit.text, edit.to);
    case 'changeSettings':
      return settings.changeSettings(document, edit.to);
  }
}

/**
 * Does one act upon a document. The document given is not changed; parts the act did not touch stay the same objects.
 * @throws EditError if the act cannot be done or would leave a fault that was not there before
 */
export function applyEdit(document: BotDocument, edit: Edit): Edited {
  const done = act(document, edit);
  const edited = { ...done, document: withMainForms(done.document) };
  const before = new Set(validateReferences(document).map((fault) => fault.path + fault.message));
  const faults = validateReferences(edited.document).filter((fault) => !before.has(fault.path + fault.message));
  if (faults.length > 0) {
    const [first] = faults;
    const more = faults.length > 1 ? ` There are ${faults.length - 1} more faults.` : '';
    throw new EditError(`${first!.message.charAt(0).toUpperCase()}${first!.message.slice(1)}.${more}`, faults);
  }
  return edited;
}
