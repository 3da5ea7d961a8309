/** The hands card in plain text, for when it cannot be drawn: what to do, how much, and its button. */
import { tapEvents, type AgendaItem } from '@even-kettle/core/plan';
import { inWords, type Units } from '@even-kettle/core/units';
import { newId, useBar, useHere } from '../../client/bar-context';
import { handsWords } from '../../words/hands-words';
import { Button } from '../../ui/button';
import { Text } from '../../ui/text';
import { WORDS } from '../words';

export function PlainCard({ item, units }: { item: AgendaItem; units: Units }) {
  const { store, clock } = useHere();
  const { bar } = useBar();
  const asked = handsWords(item, units);
  return (
    <>
      <Text size="verb">
        {item.station.name}: {asked.verb} {inWords(asked.figure)}
      </Text>
      <Text>{asked.detail}</Text>
      {item.cup.allergy ? <Text bold>{WORDS.allergy(item.cup.allergy)}</Text> : null}
      {item.asks === 'runs' || !bar ? null : (
        <Button
          kind="main"
          label={asked.button}
          onPress={() => store.act(tapEvents(item, bar, clock.nowMs(), newId), asked.button)}
        />
      )}
    </>
  );
}
