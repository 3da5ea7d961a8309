/**
 * What the scale read at the end of a pour, where no scale tells it.
 */
import { useState } from 'react';
import type { AgendaItem } from '@even-kettle/core/plan';
import { inWords, showMass, type Units } from '@even-kettle/core/units';
import { Row, Tap } from '../../ui/parts';
import { Text } from '../../ui/text';

type Reading = { shownG: number; given: number | undefined; change: (byG: number) => void };

/** Left alone, nothing is said of it. */
export function useReading(item: AgendaItem): Reading {
  const [off, setOff] = useState<{ key: string; byG: number }>({ key: item.key, byG: 0 });
  const byG = off.key === item.key ? off.byG : 0;
  const shownG = (item.step.targetG ?? 0) + byG;
  return {
    shownG,
    given: byG === 0 ? undefined : shownG,
    change: (by) => setOff({ key: item.key, byG: byG + by }),
  };
}

export function ReadingStepper({ reading, units }: { reading: Reading; units: Units }) {
  return (
    <Row style={{ gap: 4 }}>
      <Tap
        kind="bare"
        label=""
        icon="minus"
        says="Scale reads one gram less"
        onPress={() => reading.change(-1)}
        style={{ paddingHorizontal: 0 }}
      />
      <Text quiet={reading.given === undefined} bold={reading.given !== undefined}>
        reads {inWords(showMass(reading.shownG, units, 'water'))}
      </Text>
      <Tap
        kind="bare"
        label=""
        icon="plus"
        says="Scale reads one gram more"
        onPress={() => reading.change(1)}
        style={{ paddingHorizontal: 0 }}
      />
    </Row>
  );
}
