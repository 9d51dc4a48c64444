import { QuantityError } from '@schmelz/core';

/**
 * The answer as it is when every number in it is one; JSON knows no others, and would send nothing in their place.
 * @throws QuantityError by the name of the first that came out as none
 * @example finite({ seconds: 3 }) // { seconds: 3 }
 */
export function finite<T>(answer: T, name = 'the answer'): T {
  if (typeof answer === 'number' && !Number.isFinite(answer)) {
    throw new QuantityError(name, 'beyond what can be reckoned', '', 'input that lies less far apart');
  }
  if (typeof answer === 'object' && answer !== null) {
    for (const [field, each] of Object.entries(answer)) finite(each, Array.isArray(answer) ? name : field);
  }
  return answer;
}
