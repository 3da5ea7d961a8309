/**
 * Whom the lab's hour brings: how many cups, when, and of what.
 */
import { useState } from 'react';
import { View } from 'react-native';
import type { LabGuests, LabLine } from '@even-kettle/core/practice';
import { METHODS } from '@even-kettle/core/recipe';
import { inWords, showVolume } from '@even-kettle/core/units';
import { useBar, useHere, useUnits } from '../../client/bar-context';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Counter } from '../../ui/counter';
import { NumberField } from '../../ui/number-field';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Subheading, Text } from '../../ui/text';
import { CUPS_OF_A_BOAT } from '../../parts/wanted';
import { CurveField } from './curve-field';
import { WORDS } from './words';

const SLOTS = 12;
const SLOT_MS = 300_000;
const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
export const STEADY = Array<number>(SLOTS).fill(1);

/** As many guests with each boat, and a few in between. */
export const boatsEvery = (minutes: number): number[] =>
  STEADY.map((_, slot) => ((slot * 5) % minutes < 5 ? 4 : 0.5));

type Props = {
  guests: LabGuests;
  menu: readonly LabLine[];
  onGuests: (guests: LabGuests) => void;
  onMenu: (menu: LabLine[]) => void;
};

export function GuestsOfTheHour({ guests, menu, onGuests, onMenu }: Props) {
  const units = useUnits();
  const { recipes } = useBar();
  const nameOf = (line: LabLine) => {
    const recipe = recipes.find(({ id }) => id === line.recipeId);
    return recipe ? `${METHODS[recipe.method].name}: ${recipe.name}` : line.recipeId;
  };
  return (
    <Card style={{ gap: 12 }}>
      <Subheading>{WORDS.guestsOfTheHour}</Subheading>
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-end' }}>
        <NumberField
          label={WORDS.cupsAnHour}
          value={guests.cupsAnHour}
          fault={!(guests.cupsAnHour >= 1 && guests.cupsAnHour <= 200)}
          onChange={(cupsAnHour) => onGuests({ ...guests, cupsAnHour })}
          testID="cups-an-hour"
        />
        <Button label={WORDS.steady} onPress={() => onGuests({ ...guests, curve: STEADY })} />
        <Button label={WORDS.boatsEvery15} onPress={() => onGuests({ ...guests, curve: boatsEvery(15) })} />
        <FromTheFeed onGuests={onGuests} />
      </Row>
      <FromTheLog onGuests={onGuests} />
      <CurveField curve={guests.curve} onChange={(curve) => onGuests({ ...guests, curve })} />
      <Text size="small" quiet>
        {WORDS.shares}
      </Text>
      {menu.map((line, n) => (
        <Counter
          key={`${line.recipeId} ${line.coffee} ${line.cupMl}`}
          name={`${nameOf(line)}, ${line.coffee}, ${inWords(showVolume(line.cupMl, units))}`}
          count={line.share}
          most={20}
          onCount={(share) => onMenu(menu.map((each, at) => (at === n ? { ...each, share } : each)))}
        />
      ))}
    </Card>
  );
}

/** The timetable of the order feed. */
function FromTheFeed({ onGuests }: Pick<Props, 'onGuests'>) {
  const { api } = useHere();
  const [failed, setFailed] = useState(false);
  const take = () =>
    void api.feed().then(
      ({ everyMin }) =>
        onGuests({ cupsAnHour: Math.round((60 / everyMin) * CUPS_OF_A_BOAT), curve: boatsEvery(everyMin) }),
      () => setFailed(true),
    );
  return (
    <>
      <Button label={WORDS.feedsTimetable} onPress={take} />
      {failed ? <Text role="alert">{WORDS.couldNotAsk}</Text> : null}
    </>
  );
}

/** The log's own hour of a weekday: what the same hours of the weeks before asked for, five minutes at a time. */
function FromTheLog({ onGuests }: Pick<Props, 'onGuests'>) {
  const { api, clock } = useHere();
  const [day, setDay] = useState('0');
  const [hour, setHour] = useState('9');
  const [said, setSaid] = useState<string | null>(null);
  const take = async () => {
    const fromMs = nextHour(clock.nowMs(), Number(day), Number(hour));
    try {
      const slots = await Promise.all(
        STEADY.map((_, slot) => api.today(fromMs + slot * SLOT_MS, fromMs + (slot + 1) * SLOT_MS)),
      );
      const curve = slots.map(({ rush }) => rush.cups);
      const cups = curve.reduce((sum, each) => sum + each, 0);
      if (cups === 0) return setSaid(WORDS.logKnowsNothing);
      const top = Math.max(...curve);
      onGuests({ cupsAnHour: cups, curve: curve.map((each) => Math.round((each / top) * 12) / 2) });
      setSaid(WORDS.fromTheLog(cups));
    } catch {
      setSaid(WORDS.couldNotAsk);
    }
  };
  return (
    <View style={{ gap: 6 }}>
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-end' }}>
        <Select
          label={WORDS.weekday}
          value={day}
          onChange={setDay}
          style={{ minWidth: 130 }}
          options={WEEKDAYS.map((label, n) => ({ value: String(n), label }))}
        />
        <Select
          label={WORDS.fromHour}
          value={hour}
          onChange={setHour}
          style={{ minWidth: 100 }}
          options={HOURS.map((value) => ({ value: String(value), label: `${value}:00` }))}
        />
        <Button label={WORDS.takeFromLog} onPress={() => void take()} />
      </Row>
      {said ? <Text role="status">{said}</Text> : null}
    </View>
  );
}

/** Sunday first, as the calendar of the browser counts them. */
const WEEKDAYS = Array.from({ length: 7 }, (_, n) =>
  new Intl.DateTimeFormat(undefined, { weekday: 'long', timeZone: 'UTC' }).format(
    new Date(Date.UTC(2026, 10, 1 + n)),
  ),
);
const HOURS = Array.from({ length: 18 }, (_, n) => n + 5);

/** The next such hour of such a weekday, in the viewer's time; the weeks before it are looked back on. */
function nextHour(nowMs: number, day: number, hour: number): number {
  const at = new Date(nowMs);
  at.setHours(hour, 0, 0, 0);
  const days = (day - at.getDay() + 7) % 7;
  return at.getTime() + days * DAY_MS;
}
