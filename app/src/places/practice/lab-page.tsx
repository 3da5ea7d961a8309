/**
 * The rush lab: what the bar would make of an hour if something of it were otherwise.
 */
import { useMemo, useState } from 'react';
import { router } from 'expo-router';
import type { Bar, LabFile } from '@even-kettle/core/contract';
import {
  LAB_FORMAT,
  faultOf,
  variantOf,
  type LabChange,
  type LabGuests,
  type LabVariant,
} from '@even-kettle/core/practice';
import { brewerOf } from '@even-kettle/core/plan';
import type { Recipe } from '@even-kettle/core/recipe';
import { newId, useBar, useHere } from '../../client/bar-context';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { saveFile } from '../../ui/files';
import { Loading, Notice } from '../../ui/notice';
import { Halves, Page, Row } from '../../ui/page';
import { Heading, Subheading, Text } from '../../ui/text';
import { ProgressBar } from '../../parts/progress-bar';
import { menuOf } from './bar-menu';
import { GuestsOfTheHour, boatsEvery } from './lab-guests';
import { LabResults, rowsOf, type LabRow } from './lab-results';
import { VariantCard } from './lab-variant';
import { useLab, type Found } from './use-lab';
import { usePractice } from './use-practice';
import { WORDS } from './words';

const MOST_VARIANTS = 6;
const SHIFTS = ['6', '20', '60'] as const;

export function LabPage() {
  const { bar } = useBar();
  return (
    <Page wide>
      <Row style={{ justifyContent: 'space-between' }}>
        <Heading>{WORDS.rushLab}</Heading>
        <Button icon="back" label={WORDS.back} kind="bare" onPress={() => router.navigate('/practice')} />
      </Row>
      <Text>{WORDS.rushLabIs}</Text>
      {bar ? (
        bar.stations.length === 0 ? (
          <Notice title={WORDS.noStations}>{WORDS.noStationsIs}</Notice>
        ) : (
          <Lab bar={bar} />
        )
      ) : (
        <Loading what={WORDS.theLab} height={300} />
      )}
    </Page>
  );
}

function Lab({ bar }: { bar: Bar }) {
  const { recipes, book } = useBar();
  const lab = useLab();
  const [guests, setGuests] = useState<LabGuests>({ cupsAnHour: 24, curve: boatsEvery(15) });
  const [menu, setMenu] = useState(() => menuOf(bar, recipes));
  const [asked, setAsked] = useState<LabVariant[]>(() => [
    { ...variantOf(bar, [], guests, WORDS.asItIs), id: newId() },
  ]);
  const [count, setCount] = useState<(typeof SHIFTS)[number]>('20');
  const variants = useMemo(
    () => asked.map((variant) => ({ ...variant, guests, menu: menu.filter(({ share }) => share > 0) })),
    [asked, guests, menu],
  );
  const faults = useMemo(() => variants.map((variant) => faultOf(bar, variant, book)), [variants, bar, book]);
  const isSound =
    faults.every((fault) => fault === null) &&
    guests.cupsAnHour >= 1 &&
    guests.cupsAnHour <= 200 &&
    variants.every(({ name, paceBy }) => name.trim() !== '' && paceBy >= 0.5 && paceBy <= 2);
  const rows = rowsOf(variants, lab.shifts);
  const add = (like: LabVariant) =>
    setAsked([
      ...asked,
      { ...like, id: newId(), name: WORDS.variant(String.fromCharCode(65 + asked.length)) },
    ]);
  return (
    <Halves
      first={
        <>
          <GuestsOfTheHour guests={guests} menu={menu} onGuests={setGuests} onMenu={setMenu} />
          {asked.map((variant, n) => (
            <KeptVariantCard
              key={variant.id}
              bar={bar}
              variant={variant}
              whole={variants[n]!}
              letter={String.fromCharCode(65 + n)}
              fault={faults[n] ?? null}
              onChange={(changed) => setAsked(asked.map((each) => (each.id === changed.id ? changed : each)))}
              onRemove={asked.length > 1 ? () => setAsked(asked.filter(({ id }) => id !== variant.id)) : null}
            />
          ))}
          {asked.length < MOST_VARIANTS ? (
            <Button
              label={WORDS.addVariant}
              icon="plus"
              onPress={() => add(asked.at(-1)!)}
              testID="add-variant"
            />
          ) : null}
          <KeptVariants onTake={(kept) => setAsked([...asked, { ...kept, id: newId() }])} />
        </>
      }
      second={
        <>
          <Card style={{ gap: 12 }}>
            <Subheading>{WORDS.simulate}</Subheading>
            <Choice
              name={WORDS.shiftsEach}
              value={count}
              onChange={setCount}
              options={SHIFTS.map((value) => ({ value, label: WORDS.shifts(Number(value)) }))}
            />
            {lab.running ? (
              <>
                <Text role="status">{WORDS.simulated(lab.running.done, lab.running.of)}</Text>
                <ProgressBar share={lab.running.done / lab.running.of} />
                <Button label={WORDS.cancel} onPress={lab.cancel} />
              </>
            ) : (
              <Row style={{ flexWrap: 'wrap' }}>
                <Button
                  kind="main"
                  label={WORDS.compare}
                  disabled={!isSound}
                  onPress={() => void lab.compare(variants, Number(count))}
                  testID="run-lab"
                />
                <Button
                  label={WORDS.findCheapest}
                  disabled={!isSound}
                  onPress={() => void lab.search(variants[0]!)}
                />
              </Row>
            )}
            {lab.hasFailed ? <Text role="alert">{WORDS.labFailed}</Text> : null}
            {lab.found ? <Text role="status">{foundInWords(lab.found, bar)}</Text> : null}
          </Card>
          <LabResults rows={rows} bar={bar} />
          {rows.length > 0 && !lab.running ? <Export bar={bar} recipes={recipes} rows={rows} /> : null}
        </>
      }
    />
  );
}

/** A variant that can be kept with the server, by its name. */
function KeptVariantCard({
  whole,
  ...props
}: Omit<Parameters<typeof VariantCard>[0], 'onKeep'> & { whole: LabVariant }) {
  const { clock } = useHere();
  const practice = usePractice();
  const [said, setSaid] = useState<string | null>(null);
  return (
    <>
      <VariantCard
        {...props}
        onKeep={() =>
          void practice
            .keep({
              kind: 'variant',
              id: newId(),
              atMs: clock.nowMs(),
              variant: { ...whole, name: whole.name.trim() },
            })
            .then(
              () => setSaid(WORDS.variantKept(whole.name)),
              () => setSaid(WORDS.couldNotKeep),
            )
        }
      />
      {said ? <Text role="status">{said}</Text> : null}
    </>
  );
}

function KeptVariants({ onTake }: { onTake: (variant: LabVariant) => void }) {
  const { items, remove } = usePractice();
  const kept = items.filter((item) => item.kind === 'variant');
  if (kept.length === 0) return null;
  return (
    <Card>
      <Subheading>{WORDS.keptVariants}</Subheading>
      {kept.map(({ id, variant }) => (
        <Row key={id} style={{ justifyContent: 'space-between' }}>
          <Text style={{ flex: 1 }}>{variant.name}</Text>
          <Button label={WORDS.addIt} says={WORDS.addKept(variant.name)} onPress={() => onTake(variant)} />
          <Button
            label={WORDS.remove}
            says={WORDS.removeKept(variant.name)}
            kind="bare"
            onPress={() => void remove(id).catch(() => undefined)}
          />
        </Row>
      ))}
    </Card>
  );
}

function Export({ bar, recipes, rows }: { bar: Bar; recipes: readonly Recipe[]; rows: readonly LabRow[] }) {
  const file = (): LabFile => ({
    format: LAB_FORMAT,
    // Who works there is nobody's business elsewhere.
    bar: { ...bar, people: [] },
    recipes: [...recipes],
    shifts: Math.max(2, rows[0]!.shifts.length),
    variants: rows.map(({ variant }) => variant),
  });
  return (
    <Card>
      <Subheading>{WORDS.exportIt}</Subheading>
      <Text size="small" quiet>
        {WORDS.exportIs}
      </Text>
      <Row>
        <Button
          label={WORDS.json}
          onPress={() => saveFile('rush-lab.json', JSON.stringify(file(), null, 2), 'application/json')}
        />
        <Button label={WORDS.csv} onPress={() => saveFile('rush-lab.csv', csvOf(rows), 'text/csv')} />
      </Row>
    </Card>
  );
}

/** A line for each shift. */
export function csvOf(rows: readonly LabRow[]): string {
  const head = [
    'variant',
    'seed',
    'orders',
    'cups',
    'cups_an_hour',
    'mean_wait_s',
    'late_orders',
    'hands_busy',
  ];
  const lines = rows.flatMap(({ variant, shifts }) =>
    shifts.map(({ seed, orders, cups, cupsAnHour, waitsS, late, handsBusy }) =>
      [
        `"${variant.name.replaceAll('"', '""')}"`,
        seed,
        orders,
        cups,
        cupsAnHour.toFixed(2),
        (waitsS.reduce((sum, each) => sum + each, 0) / waitsS.length).toFixed(1),
        late,
        handsBusy.toFixed(3),
      ].join(','),
    ),
  );
  return `${[head.join(','), ...lines].join('\r\n')}\r\n`;
}

export function foundInWords({ change, best, shortShare }: Found, bar: Bar): string {
  const share = Math.round(shortShare * 100);
  if (change) return WORDS.cheapest(changeInWords(change, bar), share);
  return best ? WORDS.noneDoes(changeInWords(best, bar), share) : WORDS.noneHelps;
}

function changeInWords({ what, brewerId, andHabits }: LabChange, bar: Bar): string {
  const own =
    what === 'station' ? WORDS.addOne(brewerOf(bar, brewerId!)?.name ?? brewerId!) : WORDS.changes[what];
  return andHabits ? WORDS.andHabits(own) : own;
}
