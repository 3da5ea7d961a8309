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
import { WORDS } from './words';

export const StationsCard = ({ bar }: { bar: Bar }) => (
  <ListCard
    title={WORDS.stations}
    intro={countsOf(bar)}
    setting="stations"
    bar={bar}
    addLabel={WORDS.aStation}
    fresh={(id) => ({ id, name: WORDS.newStation, brewerId: 'cone-m' })}
    line={({ name, brewerId, scale, handHeld }) => ({
      name,
      detail: [
        brewerLine(brewerId),
        scale === undefined || scale === 'read' ? null : SCALE_WORDS[scale],
        handHeld ? WORDS.heldInTheHand : null,
      ]
        .filter(Boolean)
        .join(' · '),
    })}
    form={(station, set, wrong) => (
      <>
        <Row style={{ alignItems: 'flex-end' }}>
          <NameField of={station} set={set} wrong={wrong} style={{ flex: 1 }} />
          <Select
            label={WORDS.brewer}
            value={station.brewerId}
            options={BREWERS.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(brewerId) => set({ brewerId })}
            style={{ flex: 1 }}
          />
        </Row>
        <Select
          label={WORDS.scale}
          value={station.scale ?? 'read'}
          options={STATION_SCALES.map((value) => ({ value, label: SCALE_WORDS[value] }))}
          onChange={(scale) => set({ scale })}
        />
        {canBeHandHeld(station.brewerId) ? (
          <Choice
            name={WORDS.howTheSockIsHeld}
            value={station.handHeld ? 'held' : 'hung'}
            onChange={(value) => set({ handHeld: value === 'held' })}
            options={[
              { value: 'hung', label: WORDS.hungOnAStand },
              { value: 'held', label: WORDS.heldInTheHand, hint: WORDS.keepsTheHandsThroughTheDrawdown },
            ]}
          />
        ) : null}
      </>
    )}
  />
);

const SCALE_WORDS: Record<StationScale, string> = {
  read: WORDS.aScaleThatYouRead,
  none: WORDS.nonePouredByClockAndEye,
  simulated: WORDS.simulatedToTryAndToTrain,
  bridge: WORDS.connectedThroughABridge,
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
