/**
 * The stations: a brewer, and what weighs under it.
 */
import type { Bar } from '@even-kettle/core/contract';
import { STATION_SCALES, type StationScale } from '@even-kettle/core/plan';
import { BREWERS, METHODS, brewerById } from '@even-kettle/core/recipe';
import { Choice } from '../../ui/choice';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { ListCard, NameField } from './list-card';

export const StationsCard = ({ bar }: { bar: Bar }) => (
  <ListCard
    title="Stations"
    intro={countsOf(bar)}
    setting="stations"
    bar={bar}
    addLabel="A station"
    fresh={(id) => ({ id, name: 'New station', brewerId: 'cone-m' })}
    line={({ name, brewerId, scale, handHeld }) => ({
      name,
      detail: [
        brewerLine(brewerId),
        scale === undefined || scale === 'read' ? null : SCALE_WORDS[scale],
        handHeld ? 'held in the hand' : null,
      ]
        .filter(Boolean)
        .join(' · '),
    })}
    form={(station, set, wrong) => (
      <>
        <Row style={{ alignItems: 'flex-end' }}>
          <NameField of={station} set={set} wrong={wrong} style={{ flex: 1 }} />
          <Select
            label="Brewer"
            value={station.brewerId}
            options={BREWERS.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(brewerId) => set({ brewerId })}
            style={{ flex: 1 }}
          />
        </Row>
        <Select
          label="Scale"
          value={station.scale ?? 'read'}
          options={STATION_SCALES.map((value) => ({ value, label: SCALE_WORDS[value] }))}
          onChange={(scale) => set({ scale })}
        />
        {canBeHandHeld(station.brewerId) ? (
          <Choice
            name="How the sock is held"
            value={station.handHeld ? 'held' : 'hung'}
            onChange={(value) => set({ handHeld: value === 'held' })}
            options={[
              { value: 'hung', label: 'hung on a stand' },
              { value: 'held', label: 'held in the hand', hint: 'keeps the hands through the drawdown' },
            ]}
          />
        ) : null}
      </>
    )}
  />
);

const SCALE_WORDS: Record<StationScale, string> = {
  read: 'a scale that you read',
  none: 'none: poured by clock and eye',
  simulated: 'simulated, to try and to train',
  bridge: 'connected through a bridge',
};

function canBeHandHeld(brewerId: string): boolean {
  const brewer = brewerById(brewerId);
  return brewer !== undefined && METHODS[brewer.method].canBeHandHeld;
}

function brewerLine(brewerId: string): string {
  const brewer = brewerById(brewerId);
  return brewer ? `${brewer.name}, ${brewer.minDoseG}–${brewer.maxDoseG} g` : brewerId;
}

/** Brewers and how many of each. */
const countsOf = ({ stations }: Bar): string =>
  BREWERS.map(({ id, name }) => ({ name, many: stations.filter(({ brewerId }) => brewerId === id).length }))
    .filter(({ many }) => many > 0)
    .map(({ name, many }) => `${many} × ${name}`)
    .join(', ');
