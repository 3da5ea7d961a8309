/**
 * What few steps say: stirs that are counted, a temperature to look for, how far it may move, a pour's own water and slow opening.
 */
import { useState } from 'react';
import { View } from 'react-native';
import type { Pour, RecipeStep } from '@even-kettle/core/recipe';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { OptionalNumber } from '../../ui/optional-number';
import { Row } from '../../ui/page';
import { WORDS } from './words';

type Props = {
  step: RecipeStep;
  wrong: (part: string) => boolean;
  onChange: (step: RecipeStep) => void;
};

/** The same with a part set, or without it where nothing is said. */
export function withPart<Whole extends object, Key extends keyof Whole>(
  whole: Whole,
  key: Key,
  value: Whole[Key] | undefined,
): Whole {
  const { [key]: _, ...rest } = whole;
  return (value === undefined ? rest : { ...rest, [key]: value }) as Whole;
}

/** A part of two figures or more, that is there as soon as one of them is. */
function withFigure<Part extends object>(
  part: Part | undefined,
  whole: Part,
  key: keyof Part,
  value: number | undefined,
): Part | undefined {
  return value === undefined ? undefined : { ...(part ?? whole), [key]: value };
}

type Opening = NonNullable<Pour['opening']>;
const USUAL_OPENING: Opening = { toShare: 0.5, flowGPerS: 3 };
const USUAL_WINDOW = { earlyS: 0, lateS: 60, penalty: 0.3 };
const USUAL_CUE_WINDOW = { earlyS: 10, lateS: 10 };

export function StepMore({ step, wrong, onChange }: Props) {
  const [open, setOpen] = useState(false);
  const set = <Key extends keyof RecipeStep>(key: Key, value: RecipeStep[Key] | undefined) =>
    onChange(withPart(step, key, value));
  if (!open)
    return <Button kind="bare" icon="chevron-down" label={WORDS.moreOfStep} onPress={() => setOpen(true)} />;
  return (
    <View style={{ gap: 10 }}>
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <OptionalNumber
          label={WORDS.stirsCounted}
          value={step.stirs}
          onChange={(stirs) => set('stirs', stirs)}
          fault={wrong('stirs')}
        />
        {(['from', 'to'] as const).map((end) => (
          <OptionalNumber
            key={end}
            label={WORDS.lookForC[end]}
            value={step.checkC?.[end]}
            onChange={(atC) =>
              set('checkC', withFigure(step.checkC, { from: atC ?? 0, to: atC ?? 0 }, end, atC))
            }
            fault={wrong('checkC')}
          />
        ))}
      </Row>
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <OptionalNumber
          label={WORDS.mayStartEarly}
          value={step.window?.earlyS}
          onChange={(earlyS) => set('window', withFigure(step.window, USUAL_WINDOW, 'earlyS', earlyS))}
          fault={wrong('window')}
        />
        <OptionalNumber
          label={WORDS.mayStartLate}
          value={step.window?.lateS ?? undefined}
          onChange={(lateS) => set('window', { ...USUAL_WINDOW, ...step.window, lateS: lateS ?? null })}
          fault={wrong('window')}
        />
        <OptionalNumber
          label={WORDS.lateCosts}
          value={step.window?.penalty}
          onChange={(penalty) => set('window', withFigure(step.window, USUAL_WINDOW, 'penalty', penalty))}
          fault={wrong('window')}
        />
      </Row>
      <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
        {(['earlyS', 'lateS'] as const).map((end) => (
          <OptionalNumber
            key={end}
            label={WORDS.cueComes[end]}
            value={step.cueWindow?.[end]}
            onChange={(seconds) =>
              set('cueWindow', withFigure(step.cueWindow, USUAL_CUE_WINDOW, end, seconds))
            }
            fault={wrong('cueWindow')}
          />
        ))}
      </Row>
      {step.pour ? <PourMore step={step} wrong={wrong} onChange={onChange} /> : null}
      <Field
        label={WORDS.mistake}
        value={step.mistake ?? ''}
        onChangeText={(mistake) => set('mistake', mistake === '' ? undefined : mistake)}
        fault={wrong('mistake')}
      />
    </View>
  );
}

function PourMore({ step, wrong, onChange }: Props) {
  const pour = step.pour!;
  const { opening } = pour;
  const set = (next: typeof pour) => onChange({ ...step, pour: next });
  const setOpening = (key: 'toShare' | 'flowGPerS', value: number | undefined) =>
    set(withPart(pour, 'opening', withFigure(opening, USUAL_OPENING, key, value)));
  return (
    <Row style={{ flexWrap: 'wrap', alignItems: 'flex-start' }}>
      <OptionalNumber
        label={WORDS.ownWaterC}
        value={pour.waterC}
        onChange={(waterC) => set(withPart(pour, 'waterC', waterC))}
        fault={wrong('pour.waterC')}
      />
      <OptionalNumber
        label={WORDS.opensToPercent}
        value={opening === undefined ? undefined : Number((opening.toShare * 100).toFixed(4))}
        onChange={(percent) => setOpening('toShare', percent === undefined ? undefined : percent / 100)}
        fault={wrong('pour.opening')}
      />
      <OptionalNumber
        label={WORDS.opensAtFlow}
        value={opening?.flowGPerS}
        onChange={(flow) => setOpening('flowGPerS', flow)}
        fault={wrong('pour.opening')}
      />
      {opening ? (
        <Field
          label={WORDS.opensUntil}
          value={opening.cue ?? ''}
          onChangeText={(cue) =>
            set({ ...pour, opening: withPart(opening, 'cue', cue === '' ? undefined : cue) })
          }
          fault={wrong('pour.opening')}
          style={{ flexGrow: 1, width: 140 }}
        />
      ) : null}
    </Row>
  );
}
