/** Whose steps this device shows: one pair's, or all. */
import { PAIRS } from '@even-kettle/core/brew';
import { setDevice, useDevice } from '../device/settings';
import { Choice } from '../ui/choice';
import { WORDS } from './words';

export function HandsChoice({ name }: { name: string }) {
  const { hands } = useDevice();
  return (
    <Choice
      name={name}
      value={String(hands)}
      onChange={(value) => setDevice({ hands: PAIRS.find((pair) => String(pair) === value) ?? 'all' })}
      options={[
        { value: 'all', label: WORDS.allHands },
        ...PAIRS.map((pair) => ({ value: String(pair), label: `Hands ${pair + 1}` })),
      ]}
    />
  );
}
