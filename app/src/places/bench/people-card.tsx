/**
 * Who works here, and the cloths they look after.
 */
import type { DayList } from '@even-kettle/core/brew';
import type { Bar } from '@even-kettle/core/contract';
import { brewerOf } from '@even-kettle/core/plan';
import { METHODS } from '@even-kettle/core/recipe';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { tasksOf } from '../../parts/usual-tasks';
import { ListCard, NameField } from './list-card';
import { WORDS } from './words';

export const PeopleCard = ({ bar }: { bar: Bar }) => (
  <ListCard
    title={WORDS.people}
    intro={WORDS.whoseHandsHint}
    setting="people"
    bar={bar}
    addLabel={WORDS.aPerson}
    fresh={(id) => ({ id, name: WORDS.newPerson })}
    line={({ name }) => ({ name, detail: '' })}
    form={(person, set, wrong) => <NameField of={person} set={set} wrong={wrong} />}
  />
);

/** What is done before opening and after closing; it is ticked off under Today. */
export const TasksCard = ({ bar, list }: { bar: Bar; list: DayList }) => (
  <ListCard
    title={list === 'opening' ? WORDS.openingList : WORDS.closingList}
    intro={WORDS.tickedOffUnderToday}
    setting={list}
    bar={{ ...bar, [list]: tasksOf(bar, list) }}
    addLabel={list === 'opening' ? WORDS.anOpeningLine : WORDS.aClosingLine}
    fresh={(id) => ({ id, name: WORDS.newLine })}
    line={({ name }) => ({ name, detail: '' })}
    form={(task, set, wrong) => <NameField of={task} set={set} wrong={wrong} most={80} />}
  />
);

function brewsThroughCloth(bar: Bar, brewerId: string): boolean {
  const brewer = brewerOf(bar, brewerId);
  return brewer !== undefined && METHODS[brewer.method].hasCloth;
}

export const ClothsCard = ({ bar }: { bar: Bar }) => {
  const stations = bar.stations.filter(({ brewerId }) => brewsThroughCloth(bar, brewerId));
  if (stations.length === 0 && bar.cloths.length === 0) return null;
  return (
    <ListCard
      title={WORDS.cloths}
      intro={WORDS.clothsHint}
      setting="cloths"
      bar={bar}
      addLabel={WORDS.aCloth}
      fresh={(id) => ({ id, name: WORDS.newCloth, stationId: stations[0]?.id ?? bar.stations[0]!.id })}
      line={({ name, stationId }) => ({
        name,
        detail: bar.stations.find(({ id }) => id === stationId)?.name ?? '',
      })}
      form={(cloth, set, wrong) => (
        <Row style={{ alignItems: 'flex-end' }}>
          <NameField of={cloth} set={set} wrong={wrong} style={{ flex: 1 }} />
          <Select
            label={WORDS.at}
            value={cloth.stationId}
            options={stations.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(stationId) => set({ stationId })}
            style={{ flex: 1 }}
          />
        </Row>
      )}
    />
  );
};
