import { findEntity } from '../bot/document.js';
import { changeValuesInRule, valuesIn } from '../say/condition.js';
import { closest } from '../text/distance.js';
import type { Check, Mend, Remark } from './note.js';

/** Conditions that compare a slot with what is no value of its list. */
export const conditionValue: Check = {
  name: 'condition on an unknown value',
  form: ({ document }, form) =>
    form.slots.flatMap(({ id, name, when }) =>
      valuesIn(when).flatMap(({ slot, value }): Remark[] => {
        const entity = findEntity(document, form.slots.find((other) => other.name === slot)?.entity ?? '');
        if (entity?.kind !== 'list' || entity.values?.some((item) => item.value === value)) return [];
        const near = closest(
          value,
          (entity.values ?? []).map((item) => item.value),
        );
        const mend = (to: string): Mend => ({
          words: `Put “${to}”`,
          act: {
            do: 'changeSlot',
            slot: id,
            to: { when: changeValuesInRule(when!, (of, own) => (of === slot && own === value ? to : own)) },
          },
        });
        return [
          {
            text: `${name} is asked for when ${slot} is “${value}”, which is no value of ${entity.name}${near ? `; did you mean “${near}”?` : '.'}`,
            weight: 'missing',
            place: { slot: name },
            ...(near ? { mend: mend(near) } : {}),
          },
        ];
      }),
    ),
};
