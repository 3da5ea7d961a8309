/**
 * One step of a draft, field by field.
 */
import { View } from 'react-native';
import {
  GLOBE_WAYS,
  PHASES,
  START_CUES,
  STEP_KINDS,
  clockStartS,
  type Fault,
  type Pour,
  type RecipeStep,
  type StartCue,
  type StepStart,
} from '@even-kettle/core/recipe';
import { useUnits } from '../../client/bar-context';
import { Field } from '../../ui/field';
import { Choice } from '../../ui/choice';
import { Row } from '../../ui/page';
import { Select } from '../../ui/select';
import {
  amountKind,
  amountOf,
  amountValue,
  lengthKind,
  lengthOf,
  ofKind,
  type AmountKind,
  type LengthKind,
} from './draft';
import { START_CUE_WORDS } from '../../words/path-words';
import { PathFields } from './path-fields';
import { StepMore, withPart } from './step-more';
import { NumberField } from '../../ui/number-field';
import { UnitField } from '../../ui/unit-field';
import { WORDS } from './words';

type Props = { step: RecipeStep; faults: readonly Fault[]; onChange: (step: RecipeStep) => void };

const LENGTHS: { value: LengthKind; label: string }[] = [
  { value: 's', label: WORDS.soManySeconds },
  { value: 'untilS', label: WORDS.untilTheTimerReads },
  { value: 'sPerDoseG', label: WORDS.secondsForEachGram },
  { value: 'hotS', label: WORDS.startsHotOrCold },
  { value: 'sAtRef', label: WORDS.growsWithTheWater },
  { value: 'globe', label: WORDS.globeOverFlame },
  { value: 'heating', label: WORDS.untilKettleHot },
  { value: 'drawdown', label: WORDS.theDrawdown },
];
const LENGTH_FIELDS: Record<string, string> = {
  hotS: WORDS.fromHotS,
  coldS: WORDS.fromColdS,
  sAtRef: WORDS.atReferenceDose,
};
const AMOUNTS: { value: AmountKind; label: string }[] = [
  { value: 'toShare', label: WORDS.upToPercentWater },
  { value: 'timesDose', label: WORDS.timesTheDose },
  { value: 'restParts', label: WORDS.oneEqualPart },
  { value: 'g', label: WORDS.sameForAnyCup },
];

type StartKind = 'atS' | 'afterS' | StartCue;

const startKindOf = (start: StepStart): StartKind =>
  'when' in start ? start.when : 'atS' in start ? 'atS' : 'afterS';

function startOf(kind: StartKind, seconds: number): StepStart {
  if (kind === 'afterS') return { afterS: seconds };
  return kind === 'atS' ? { atS: seconds } : { when: kind, aboutS: seconds };
}

export function StepForm({ step, faults, onChange }: Props) {
  const wrong = (part: string) => faults.some(({ field }) => field.includes(`.${part}`));
  const set = (part: Partial<RecipeStep>) => onChange({ ...step, ...part });
  const startKind = startKindOf(step.start);
  return (
    <View style={{ gap: 10 }}>
      <Field
        label={WORDS.name}
        value={step.name}
        onChangeText={(name) => set({ name })}
        fault={wrong('name')}
      />
      <Row style={{ alignItems: 'flex-start' }}>
        <Select
          label={WORDS.kind}
          value={step.kind}
          options={STEP_KINDS.map((value) => ({ value, label: value }))}
          onChange={(kind) => onChange(ofKind(step, kind))}
          style={{ flex: 1 }}
        />
        <Select
          label={WORDS.part}
          value={step.phase}
          options={PHASES.map((value) => ({ value, label: value }))}
          onChange={(phase) => set({ phase })}
          style={{ flex: 1 }}
        />
      </Row>
      <Choice
        name={WORDS.hands}
        value={step.attended ? 'hands' : 'none'}
        onChange={(value) => set({ attended: value === 'hands' })}
        options={[
          { value: 'hands', label: WORDS.needsHands },
          { value: 'none', label: WORDS.goesByItself },
        ]}
      />
      <Row style={{ alignItems: 'flex-end' }}>
        <Select
          label={WORDS.starts}
          value={startKind}
          options={[
            { value: 'afterS', label: WORDS.afterTheStepBefore },
            { value: 'atS', label: WORDS.atTheTimers },
            ...(step.pour
              ? START_CUES.map((cue) => ({ value: cue, label: WORDS.whenForCue(START_CUE_WORDS[cue]) }))
              : []),
          ]}
          onChange={(kind) =>
            set({ start: startOf(kind, kind === 'afterS' ? 0 : (clockStartS(step.start) ?? 60)) })
          }
          style={{ flex: 2 }}
        />
        <NumberField
          key={startKind === 'afterS' ? 'after' : 'at'}
          label={'when' in step.start ? WORDS.expectedAtS : WORDS.seconds}
          value={'afterS' in step.start ? step.start.afterS : (clockStartS(step.start) ?? 0)}
          onChange={(seconds) => set({ start: startOf(startKind, seconds) })}
          fault={wrong('start')}
          testID="step-start"
        />
      </Row>
      {step.pour ? (
        <>
          <PourFields
            pour={step.pour}
            wrong={wrong('pour.amount') || wrong('pour.flowGPerS')}
            onChange={(pour) => set({ pour })}
          />
          <PathFields pour={step.pour} faults={faults} onChange={(pour) => set({ pour })} />
        </>
      ) : (
        <LengthFields step={step} wrong={wrong('lasts')} set={set} />
      )}
      <Row style={{ alignItems: 'flex-end' }}>
        <Select
          label={WORDS.endsBy}
          value={step.end.by}
          options={[
            { value: 'clock', label: WORDS.theClock },
            { value: 'weight', label: WORDS.weight },
            { value: 'cue', label: WORDS.seenOrHeard },
          ]}
          onChange={(by) => set({ end: by === 'cue' ? { by, cue: 'done' } : { by } })}
          style={{ flex: 1 }}
        />
        {step.end.by === 'cue' ? (
          <Field
            label={WORDS.what}
            value={step.end.cue}
            onChangeText={(cue) => set({ end: { by: 'cue', cue } })}
            fault={wrong('end')}
            style={{ flex: 1 }}
          />
        ) : null}
      </Row>
      <Row style={{ alignItems: 'flex-end' }}>
        <Select
          label={WORDS.timer}
          value={step.anchor ?? 'no'}
          options={[
            { value: 'no', label: WORDS.runsOn },
            { value: 'start', label: WORDS.startsWhenThisStarts },
            { value: 'end', label: WORDS.startsWhenThisEnds },
          ]}
          onChange={(anchor) => onChange(withPart(step, 'anchor', anchor === 'no' ? undefined : anchor))}
          style={{ flex: 1 }}
        />
        <Field
          label={WORDS.hint}
          value={step.hint ?? ''}
          onChangeText={(hint) => onChange(withPart(step, 'hint', hint === '' ? undefined : hint))}
          fault={wrong('hint')}
          style={{ flex: 1 }}
        />
      </Row>
      <StepMore step={step} wrong={wrong} onChange={onChange} />
    </View>
  );
}

function PourFields({
  pour,
  wrong,
  onChange,
}: {
  pour: Pour;
  wrong: boolean;
  onChange: (pour: Pour) => void;
}) {
  const units = useUnits();
  const kind = amountKind(pour.amount);
  // Shares are typed as per cent: that is how they are said.
  const scale = kind === 'toShare' ? 100 : 1;
  return (
    <Row style={{ alignItems: 'flex-end', flexWrap: 'wrap' }}>
      <Select
        label={WORDS.pours}
        value={kind}
        options={AMOUNTS}
        onChange={(next) => onChange({ ...pour, amount: amountOf(next) })}
        style={{ flexGrow: 2, width: 190 }}
      />
      {kind === 'g' ? (
        <UnitField
          quantity="mass"
          units={units}
          label={WORDS.adds}
          value={amountValue(pour.amount)}
          onChange={(value) => onChange({ ...pour, amount: amountOf(kind, value) })}
          fault={wrong}
          testID="step-amount"
        />
      ) : (
        <NumberField
          key={kind}
          label={kind === 'toShare' ? WORDS.perCent : WORDS.howMany}
          value={Number((amountValue(pour.amount) * scale).toFixed(6))}
          onChange={(value) => onChange({ ...pour, amount: amountOf(kind, value / scale) })}
          fault={wrong}
          testID="step-amount"
        />
      )}
      <NumberField
        label={WORDS.flowGSLabel}
        value={pour.flowGPerS}
        onChange={(flowGPerS) => onChange({ ...pour, flowGPerS })}
        fault={wrong}
      />
    </Row>
  );
}

function LengthFields({
  step,
  wrong,
  set,
}: {
  step: RecipeStep;
  wrong: boolean;
  set: (part: Partial<RecipeStep>) => void;
}) {
  const { lasts } = step;
  const kind = lengthKind(lasts);
  return (
    <Row style={{ alignItems: 'flex-end', flexWrap: 'wrap' }}>
      <Select
        label={WORDS.lasts}
        value={kind}
        options={LENGTHS}
        onChange={(next) => set({ lasts: lengthOf(next) })}
        style={{ flexGrow: 2, width: 190 }}
      />
      {typeof lasts === 'string'
        ? null
        : Object.entries(lasts).map(([name, value]) =>
            typeof value === 'string' ? (
              <Select
                key={`${kind} ${name}`}
                label={WORDS.whichPart}
                value={value}
                options={GLOBE_WAYS.map((way) => ({ value: way, label: way }))}
                onChange={(way) => set({ lasts: { ...lasts, [name]: way } as RecipeStep['lasts'] })}
              />
            ) : (
              <NumberField
                key={`${kind} ${name}`}
                label={LENGTH_FIELDS[name] ?? WORDS.seconds}
                value={value}
                onChange={(seconds) => set({ lasts: { ...lasts, [name]: seconds } as RecipeStep['lasts'] })}
                fault={wrong}
              />
            ),
          )}
    </Row>
  );
}
