/**
 * What the log is narrowed to: words, what a brew was, and the days on which it was.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { TASTES } from '@even-kettle/core/brew';
import { METHODS, METHOD_IDS } from '@even-kettle/core/recipe';
import { addressWith } from '@even-kettle/core/contract/addresses';
import type { LogAsked } from '../../client/api';
import { useBar } from '../../client/bar-context';
import { DayField } from '../../ui/day-field';
import { dayOfMs, msOfDay, startOfNextDay } from '../../ui/days';
import { Search } from '../../ui/search';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Text } from '../../ui/text';
import { WORDS } from './words';

type FiltersProps = {
  asked: LogAsked;
  typed: string;
  onType: (text: string) => void;
  onAsk: (asked: LogAsked) => void;
};

const NARROWING = ['coffee', 'method', 'recipeId', 'stationId', 'person', 'taste', 'fromMs', 'toMs'] as const;
type Narrowing = (typeof NARROWING)[number];

export function Filters({ asked, typed, onType, onAsk }: FiltersProps) {
  const { bar, recipes } = useBar();
  const [open, setOpen] = useState(false);
  const chosen = NARROWING.filter((key) => asked[key]);
  const choose = (key: Narrowing, label: string, options: readonly { value: string; label: string }[]) => (
    <Select
      label={label}
      value={asked[key] ?? ''}
      onChange={(value) => onAsk({ ...asked, [key]: value })}
      options={[{ value: '', label: WORDS.any }, ...options]}
      style={{ flexGrow: 1, flexBasis: 150 }}
    />
  );
  const named = (things: readonly { id: string; name: string }[]) =>
    things.map(({ id, name }) => ({ value: id, label: name }));
  return (
    <View style={{ gap: 10 }}>
      <Row style={{ alignItems: 'flex-end' }}>
        <Search says={WORDS.searchTheLog} value={typed} onChangeText={onType} style={{ flex: 1 }} />
        <Button
          label={chosen.length > 0 ? WORDS.filter(chosen.length) : WORDS.filterLabel}
          kind={open || chosen.length > 0 ? 'chosen' : 'plain'}
          onPress={() => setOpen(!open)}
          style={{ height: 56 }}
        />
      </Row>
      {open ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
          {choose(
            'coffee',
            WORDS.coffee,
            (bar?.coffees ?? []).map(({ name }) => ({ value: name, label: name })),
          )}
          {choose(
            'method',
            WORDS.method,
            METHOD_IDS.map((id) => ({ value: id, label: METHODS[id].name })),
          )}
          {choose('recipeId', WORDS.recipe, named(recipes))}
          {choose('stationId', WORDS.station, named(bar?.stations ?? []))}
          {choose('person', WORDS.handsOfLabel, named(bar?.people ?? []))}
          {choose(
            'taste',
            WORDS.taste,
            TASTES.map((taste) => ({ value: taste, label: taste })),
          )}
          <Days asked={asked} onAsk={onAsk} />
          <Row style={{ flexBasis: '100%' }}>
            <Text size="small" quiet style={{ flex: 1 }}>
              {WORDS.searchHint}
            </Text>
            {chosen.length > 0 || asked.search ? (
              <Button
                kind="bare"
                label={WORDS.csv}
                says={WORDS.saveBrewsCsv}
                onPress={() => window.location.assign(addressWith('getLogCsv', {}, asked))}
              />
            ) : null}
            {chosen.length > 0 ? (
              <Button
                label={WORDS.clear}
                says={WORDS.clearTheFilter}
                kind="bare"
                onPress={() => onAsk({ search: asked.search ?? '' })}
              />
            ) : null}
          </Row>
        </View>
      ) : null}
    </View>
  );
}

/** From a day on, and up to the end of another; either alone, or both. */
function Days({ asked, onAsk }: Pick<FiltersProps, 'asked' | 'onAsk'>) {
  const { fromMs, toMs } = asked;
  const from = fromMs ? dayOfMs(Number(fromMs)) : '';
  // The last day is in it: what is asked for ends where the next begins.
  const to = toMs ? dayOfMs(Number(toMs) - 1) : '';
  const side = { flexGrow: 1, flexBasis: 150 };
  return (
    <>
      <DayField
        label={WORDS.fromTheDay}
        value={from}
        onChange={(day) => onAsk({ ...asked, fromMs: day && String(msOfDay(day)) })}
        style={side}
      />
      <DayField
        label={WORDS.toTheDay}
        value={to}
        onChange={(day) => onAsk({ ...asked, toMs: day && String(startOfNextDay(msOfDay(day))) })}
        style={side}
      />
      {from && to && from > to ? (
        <Text role="alert" bold size="small" style={{ flexBasis: '100%' }}>
          {WORDS.firstAfterLast}
        </Text>
      ) : null}
    </>
  );
}
