import { mixed, type InferType } from '../../shape/yup.js';
import { ENGINE_TEXTS, TEXT_NAMES, type TextName } from '../../say/engineTexts.js';
import {
  clarifyOf,
  DEFAULT_COSTS,
  type ClarifySettings,
  type GateCosts,
  type GateSettings,
  type NoMatchSettings,
} from '../document.js';
import { MOST } from '../limits.js';
import { actKind } from './act.js';
import { changed } from './common.js';
import {
  change,
  clarify,
  cost,
  helpOrder,
  level,
  localised,
  optionalParts,
  parts,
  text,
  texts,
  tries,
} from '../../shape/shapes.js';

const settingsChange = change({
  name: text(MOST.name),
  languages: texts(MOST.languages, MOST.name).test('some', 'must name a language', (value) => value?.length !== 0),
  timeZone: text(MOST.name),
  region: text(MOST.name),
  greeting: localised(),
});

const gateChange = change({
  accept: level(),
  ask: level(),
  acceptForms: level().nullable(),
  lead: level(),
  clarify: clarify(),
  costs: optionalParts({ wrongAct: cost(), wrongForm: cost(), question: cost(), missed: cost(), outsideAct: cost() }),
});

const noMatchChange = change({
  prompts: localised(),
  tries: tries(),
  order: helpOrder().nullable(),
  silences: tries().nullable(),
  desk: text(MOST.name).nullable(),
  giveUp: localised(),
});

const textName = () =>
  mixed<TextName>((value): value is TextName => TEXT_NAMES.includes(value as TextName))
    .typeError('there is no such text')
    .meta({ schema: { enum: [...TEXT_NAMES] } });

export type SettingsChange = InferType<typeof settingsChange>;
export type GateChange = InferType<typeof gateChange>;
export type NoMatchChange = InferType<typeof noMatchChange>;

export const SETTINGS_ACTS = [
  actKind('changeSettings', parts({ to: settingsChange }), (document, { to }) => ({
    document: changed(document, to, []),
    label: 'change settings',
  })),

  actKind('changeGate', parts({ to: gateChange }), (document, { to: { costs, clarify: asking, ...levels } }) => {
    const moved = changed<GateSettings>(document.gate, levels, ['acceptForms']);
    const gate = asking ? { ...moved, clarify: changed<ClarifySettings>(clarifyOf(moved), asking, []) } : moved;
    if (!costs) return { document: { ...document, gate }, label: 'change the levels of the gate' };
    const own = changed<GateCosts>(gate.costs ?? DEFAULT_COSTS, costs, []);
    return { document: { ...document, gate: { ...gate, costs: own } }, label: 'change what mistakes cost' };
  }),

  actKind('changeNoMatch', parts({ to: noMatchChange }), (document, { to }) => ({
    document: { ...document, noMatch: changed<NoMatchSettings>(document.noMatch, to, ['desk', 'order', 'silences']) },
    label: 'change what happens at no match',
  })),

  /** Gives a sentence of the engine another wording; `null` takes the bot's own away, and the default is said again. */
  actKind(
    'changeText',
    parts({ text: textName().defined('is missing'), to: localised().nullable().defined('is missing') }),
    (document, act) => {
      const { [act.text]: _, ...others } = document.texts;
      const own = act.to === null ? others : { ...others, [act.text]: act.to };
      return {
        document: { ...document, texts: own },
        label: `change the text “${ENGINE_TEXTS[act.text].when.toLowerCase()}”`,
      };
    },
  ),
] as const;
