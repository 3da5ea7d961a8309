/**
 * What the scale and the clock show, and what is asked for now; written ten times a second without a render.
 */
import { View } from 'react-native';
import type { Drill } from '@even-kettle/core/practice';
import { showMass } from '@even-kettle/core/units';
import { useUnits } from '../../client/bar-context';
import { Ticking } from '../../client/ticking';
import { Row } from '../../ui/page';
import { Text } from '../../ui/text';
import { aheadInWords, clockOf, whatNow, type Now } from './instruction';
import { WORDS } from './words';

type Props = {
  drill: Drill;
  run: () => Now;
  /** As the scale tells it, g/s. */
  flow: () => number;
};

export function Readings({ drill, run, flow }: Props) {
  const units = useUnits();
  return (
    <>
      <Row style={{ alignItems: 'flex-end', justifyContent: 'space-between' }}>
        <Row style={{ alignItems: 'baseline', gap: 4 }}>
          <Ticking
            size="figure"
            everyMs={100}
            testID="drill-reading"
            reads={() => showMass(run().cellG, units, 'water').figure}
          />
          <Text size="unit">{units.mass}</Text>
        </Row>
        <View style={{ alignItems: 'flex-end' }}>
          <Ticking size="clock" everyMs={100} testID="drill-clock" reads={() => clockOf(run().timeS)} />
          <Ticking
            size="clock"
            everyMs={100}
            testID="drill-flow"
            reads={() => WORDS.flow(flow().toFixed(1))}
          />
          <Ticking everyMs={100} reads={() => aheadInWords(drill, run(), units)} />
        </View>
      </Row>
      <Ticking
        size="verb"
        everyMs={200}
        testID="drill-now"
        style={{ minHeight: 56 }}
        reads={() => whatNow(drill, run(), units)}
      />
    </>
  );
}
