/**
 * How a cup is handed over: what goes in or beside it, to go or for here, an allergy and a wish in words.
 */
import { memo, useState } from 'react';
import { MILKS } from '@even-kettle/core/brew';
import { ADDITIONS, type Addition } from '@even-kettle/core/recipe';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import type { Draft } from '../../parts/orders/cup-draft';
import { WORDS } from '../../parts/orders/words';

type Props = { number: number; draft: Draft; onChange: (part: Partial<Draft>) => void };

export const Service = memo(function Service({ number, draft, onChange }: Props) {
  const { additions, milk, toGo, allergy, note } = draft;
  const [open, setOpen] = useState(allergy !== '' || note !== '');
  const toggle = (each: Addition) =>
    onChange({
      additions: additions.includes(each)
        ? additions.filter((other) => other !== each)
        : [...additions, each],
    });
  return (
    <>
      <Row style={{ flexWrap: 'wrap', gap: 8 }}>
        {ADDITIONS.map((each) => (
          <Chip
            key={each}
            label={WORDS.additionNames[each]}
            says={WORDS.withForCup(each, number)}
            on={additions.includes(each)}
            onPress={() => toggle(each)}
          />
        ))}
        <Chip
          label={WORDS.toGo}
          says={WORDS.cupToGo(number)}
          on={toGo}
          onPress={() => onChange({ toGo: !toGo })}
        />
        <Chip
          label={WORDS.allergyOrWish}
          says={WORDS.wishesOfCup(number)}
          on={open}
          onPress={() => {
            if (open) onChange({ allergy: '', note: '' });
            setOpen(!open);
          }}
        />
      </Row>
      {additions.includes('milk') ? (
        <Select
          label={WORDS.milk}
          says={WORDS.milkOfCup(number)}
          value={milk}
          onChange={(chosen) => onChange({ milk: chosen })}
          options={MILKS.map((value) => ({ value, label: value }))}
        />
      ) : null}
      {open ? (
        <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
          <Field
            label={WORDS.allergy}
            says={WORDS.allergyOfCup(number)}
            value={allergy}
            maxLength={80}
            onChangeText={(text) => onChange({ allergy: text })}
            style={{ flexGrow: 1, width: 150 }}
          />
          <Field
            label={WORDS.wish}
            says={WORDS.wishOfCup(number)}
            value={note}
            maxLength={120}
            onChangeText={(text) => onChange({ note: text })}
            style={{ flexGrow: 1, width: 150 }}
          />
        </Row>
      ) : null}
    </>
  );
});

function Chip({
  label,
  says,
  on,
  onPress,
}: {
  label: string;
  says: string;
  on: boolean;
  onPress: () => void;
}) {
  return (
    <Button
      label={label}
      says={on ? WORDS.isChosen(says) : says}
      kind={on ? 'chosen' : 'plain'}
      onPress={onPress}
    />
  );
}
