import { PanelMatrices } from '../linear/panels.js';
import { softmaxRows } from './logistic.js';

/** How scores become probabilities: divided by the temperature, after the offset is added to the last class. */
export interface Calibration {
  temperature: number;
  /** Added to the score of lying outside the bot. */
  outsideOffset: number;
}

/** Turns scores (n × classes) into probabilities. */
export function calibrate(
  scores: Float64Array,
  classes: number,
  { temperature, outsideOffset }: Calibration,
): Float64Array {
  const probabilities = scores.map(
    (score, index) => (score + (index % classes === classes - 1 ? outsideOffset : 0)) / temperature,
  );
  softmaxRows(probabilities, classes);
  return probabilities;
}

/** The lowest point of a function with one valley between two bounds, by golden-section search (Kiefer, 1953). */
function lowest(of: (at: number) => number, from: number, to: number, steps: number): number {
  const ratio = (Math.sqrt(5) - 1) / 2;
  let [low, high] = [from, to];
  let left = high - ratio * (high - low);
  let right = low + ratio * (high - low);
  let [atLeft, atRight] = [of(left), of(right)];
  for (let step = 0; step < steps; step++) {
    if (atLeft <= atRight) {
      [high, right, atRight] = [right, left, atLeft];
      left = high - ratio * (high - low);
      atLeft = of(left);
    } else {
      [low, left, atLeft] = [left, right, atRight];
      right = low + ratio * (high - low);
      atRight = of(right);
    }
  }
  return (low + high) / 2;
}

/**
 * Where the temperature lies for bots of the usual size, and how far around it. Few held-out rows are parted by any
 * model, and would make it sure of everything; this holds them back, and many rows hardly feel it.
 */
const USUAL_TEMPERATURE = { at: Math.log(0.5), spread: 0.3 };

/**
 * The calibration under which held-out scores become the most truthful probabilities: temperature scaling
 * (Guo et al., 2017) with a bias for the class outside the bot, which corrects for the share that the background
 * has in the training but not among customers' messages.
 * @param scores n × classes, of rows their model did not learn from
 * @param weights how much each row counts
 */
export function fitCalibration(
  scores: Float64Array,
  classes: number,
  labels: Int32Array,
  weights: Float64Array,
): Calibration {
  let calibration: Calibration = { temperature: 1, outsideOffset: 0 };
  const matrices = new PanelMatrices(labels.length, classes, 3);
  const [given, zero, scaled] = [matrices.reserve(), matrices.reserve(), matrices.reserve()];
  matrices.write(given, scores);
  const loss = ({ temperature, outsideOffset }: Calibration): number => {
    matrices.combine(scaled, { a: zero, scale: 1 / temperature, b: given });
    matrices.prepare(outsideOffset / temperature, weights);
    const away = (Math.log(temperature) - USUAL_TEMPERATURE.at) / USUAL_TEMPERATURE.spread;
    return matrices.softmax(scaled, scaled, labels) + away ** 2 / 2;
  };
  for (let round = 0; round < 3; round++) {
    const { outsideOffset } = calibration;
    const temperature = Math.exp(
      lowest((at) => loss({ temperature: Math.exp(at), outsideOffset }), Math.log(0.05), Math.log(5), 14),
    );
    calibration = { temperature, outsideOffset: lowest((at) => loss({ temperature, outsideOffset: at }), -5, 5, 14) };
  }
  return calibration;
}

/**
 * What held-out scores cannot tell, measured on customers' messages to nine bots whose trades nothing was learned from: a
 * model that has learned from every fold is surer, and rightly, than those that lacked one, for utterances are written to
 * differ from each other; and what lies outside is nearer to a bot than the background is (in units of the temperature).
 */
const HELD_OUT_IS_HARDER = 1.2;
const NEARER_OUTSIDE = 0.25;

/** The calibration for customers' messages, from that of held-out utterances. */
export function forMessages({ temperature, outsideOffset }: Calibration): Calibration {
  return {
    temperature: temperature / HELD_OUT_IS_HARDER,
    outsideOffset: outsideOffset + NEARER_OUTSIDE * temperature,
  };
}
