/**
 * The stations: a brewer, and what weighs under it.
 */
import type { Bar } from '@even-kettle/core/contract';
import { STATION_SCALES, allBrewers, brewerOf, type StationScale } from '@even-kettle/core/plan';
import { METHODS, type Brewer } from '@even-kettle/core/recipe';
import { Choice } from '../../ui/choice';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Switch } from '../../ui/switch';
import { ListCard, NameField } from './list-card';
import type { Units } from '@even-kettle/core/units';
import { dosesInWords } from '../../words/hands-words';
import { WORDS } from './words';

export const StationsCard = ({ bar }: { bar: Bar }) => (
  <ListCard
    title={WORDS.stations}
    intro={countsOf(bar) || WORDS.stationsAreFor}
    setting="stations"
    bar={bar}
    addLabel={WORDS.aStation}
    fresh={(id) => ({ id, name: WORDS.newStation, brewerId: 'cone-m' })}
    line={({ name, brewerId, scale, handHeld, intoCup, out }) => ({
      name,
      detail: [
        brewerLine(brewerOf(bar, brewerId), brewerId, bar.units),
        scale === undefined || scale === 'read' ? null : SCALE_WORDS[scale],
        handHeld ? WORDS.heldInTheHand : null,
        intoCup ? WORDS.straightIntoTheCup : null,
        out ? WORDS.outOfUse : null,
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
            options={allBrewers(bar).map(({ id, name }) => ({ value: id, label: name }))}
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
        <Switch label={WORDS.outOfUse} on={station.out ?? false} onChange={(out) => set({ out })} />
        {canBeHandHeld(brewerOf(bar, station.brewerId)) ? (
          <Choice
            name={WORDS.sockHolder}
            value={station.handHeld ? 'held' : 'hung'}
            onChange={(value) => set({ handHeld: value === 'held' })}
            options={[
              { value: 'hung', label: WORDS.hungOnAStand },
              { value: 'held', label: WORDS.heldInTheHand, hint: WORDS.keepsHands },
            ]}
          />
        ) : null}
        {servesFromServer(brewerOf(bar, station.brewerId)) ? (
          <Choice
            name={WORDS.singleCupField}
            value={station.intoCup ? 'cup' : 'server'}
            onChange={(value) => set({ intoCup: value === 'cup' })}
            options={[
              { value: 'server', label: WORDS.intoAServer },
              { value: 'cup', label: WORDS.straightIntoTheCup, hint: WORDS.rinseWarmsCup },
            ]}
          />
        ) : null}
      </>
    )}
  />
);

const SCALE_WORDS: Record<StationScale, string> = {
  read: WORDS.scaleByEye,
  none: WORDS.noScale,
  simulated: WORDS.simulatedDevice,
  bridge: WORDS.connectedThroughABridge,
};

const canBeHandHeld = (brewer: Brewer | undefined): boolean =>
  brewer !== undefined && METHODS[brewer.method].canBeHandHeld;

/** What stands over a server may as well stand over a cup. */
const servesFromServer = (brewer: Brewer | undefined): boolean =>
  brewer !== undefined && METHODS[brewer.method].iceIn === 'the server';

const brewerLine = (brewer: Brewer | undefined, id: string, units: Units): string =>
  brewer ? `${brewer.name}, ${dosesInWords(brewer, units)}` : id;

/** Brewers and how many of each. */
const countsOf = (bar: Bar): string =>
  allBrewers(bar)
    .map(({ id, name }) => ({
      name,
      many: bar.stations.filter(({ brewerId }) => brewerId === id).length,
    }))
    .filter(({ many }) => many > 0)
    .map(({ name, many }) => `${many} × ${name}`)
    .join(', ');
