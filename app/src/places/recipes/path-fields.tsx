/**
 * Where a pour's water goes, part by part, with each drawn as it is chosen.
 */
import { View } from 'react-native';
import { POUR_HEIGHTS, TURNS, WALL_WAYS, WATER_PATHS } from '@even-kettle/core/pour';
import type { Fault, Pour, PourPart } from '@even-kettle/core/recipe';
import { useDevice } from '../../device/settings';
import { Button } from '../../ui/button';
import { NumberField } from '../../ui/number-field';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Text } from '../../ui/text';
import { BedFromAbove } from '../../vessels/bed';
import { HEIGHT_WORDS, PATH_WORDS, WALL_WORDS } from '../../words/path-words';
import { WORDS } from './words';

type Props = { pour: Pour; faults: readonly Fault[]; onChange: (pour: Pour) => void };

/** Most pours have one part, and no recipe needs more than these. */
const PARTS_MAX = 6;

export function PathFields({ pour, faults, onChange }: Props) {
  const { paths = [] } = pour;
  const setPaths = (next: PourPart[]) => {
    const { paths: _paths, ...rest } = pour;
    onChange(next.length === 0 ? rest : { ...rest, paths: next });
  };
  const add = () => {
    const before = paths.map((part, index) =>
      index === paths.length - 1 ? { ...part, toShare: part.toShare ?? freeShare(paths) } : part,
    );
    setPaths([...before, { path: 'spiral' }]);
  };
  return (
    <View role="group" aria-label={WORDS.whereTheWaterGoes} style={{ gap: 8 }}>
      <Text bold size="small">
        {WORDS.whereTheWaterGoes}
      </Text>
      {paths.map((part, index) => (
        <PartFields
          // Parts have no name of their own, and their order is what they are.
          key={index}
          part={part}
          last={index === paths.length - 1}
          wrong={faults.some(({ field }) => field.includes(`.paths.${index}.`))}
          onChange={(next) => setPaths(paths.with(index, next))}
          onRemove={() => setPaths(withoutPart(paths, index))}
        />
      ))}
      {paths.length < PARTS_MAX ? (
        <Button
          label={paths.length === 0 ? WORDS.sayWaterPath : WORDS.addAPart}
          onPress={add}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
    </View>
  );
}

/** The last part goes to the end, whichever it is. */
function withoutPart(paths: readonly PourPart[], index: number): PourPart[] {
  const left = paths.toSpliced(index, 1);
  const last = left.pop();
  if (!last) return [];
  const { toShare: _toShare, ...toTheEnd } = last;
  return [...left, toTheEnd];
}

/** A share between what has been given and all of the water, per cent without a fraction. */
const freeShare = (paths: readonly PourPart[]): number => {
  const reached = paths.at(-2)?.toShare ?? 0;
  return Math.round(50 * (1 + reached)) / 100;
};

const NOT_SAID = 'not said';
type Optional = 'height' | 'wall' | 'turn';

function PartFields({
  part,
  last,
  wrong,
  onChange,
  onRemove,
}: {
  part: PourPart;
  last: boolean;
  wrong: boolean;
  onChange: (part: PourPart) => void;
  onRemove: () => void;
}) {
  const { pouringHand } = useDevice();
  const choose = (field: Optional, value: string) => {
    const { [field]: _before, ...rest } = part;
    onChange((value === NOT_SAID ? rest : { ...rest, [field]: value }) as PourPart);
  };
  const optional = (
    field: Optional,
    label: string,
    values: readonly string[],
    words: Record<string, string>,
  ) => (
    <Select
      label={label}
      value={part[field] ?? NOT_SAID}
      options={[
        { value: NOT_SAID, label: field === 'turn' ? WORDS.asThePersonDoes : WORDS.notSaid },
        ...values.map((value) => ({ value, label: words[value] ?? value })),
      ]}
      onChange={(value) => choose(field, value)}
      style={{ flexGrow: 1, width: 150 }}
    />
  );
  return (
    <Row style={{ alignItems: 'flex-start', gap: 10 }}>
      <BedFromAbove parts={[part]} hand={pouringHand} size={64} />
      <Row style={{ flex: 1, flexWrap: 'wrap', alignItems: 'flex-end' }}>
        <Select
          label={WORDS.path}
          value={part.path}
          options={WATER_PATHS.map((value) => ({ value, label: PATH_WORDS[value] }))}
          onChange={(path) => onChange({ ...part, path })}
          style={{ flexGrow: 2, width: 190 }}
        />
        {last ? null : (
          <NumberField
            label={WORDS.upToPercent}
            value={Math.round((part.toShare ?? 0) * 1000) / 10}
            onChange={(percent) => onChange({ ...part, toShare: percent / 100 })}
            fault={wrong}
            testID="part-share"
          />
        )}
        {optional('height', WORDS.height, POUR_HEIGHTS, HEIGHT_WORDS)}
        {optional('wall', WORDS.wall, WALL_WAYS, WALL_WORDS)}
        {optional('turn', WORDS.wayRound, TURNS, {})}
        <Button kind="bare" label={WORDS.remove} says={WORDS.removeThisPart} onPress={onRemove} />
      </Row>
    </Row>
  );
}
