/**
 * A draft's steps: moved by drag or by keyboard, opened to be changed.
 */
import { useState, type CSSProperties } from 'react';
import { View } from 'react-native';
import {
  DndContext,
  PointerSensor,
  closestCenter,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { Recipe, RecipeStep } from '@even-kettle/core/recipe';
import { showClock } from '@even-kettle/core/units';
import { START_CUE_WORDS } from '../../words/path-words';
import { Grip } from '../../ui/grip';
import { useTheme } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { withStep, withStepAfter, withStepMoved, withoutStep } from './draft';
import { FaultLines, type FaultsAt } from './edit-fields';
import { StepForm } from './step-form';
import { WORDS } from './words';

type Props = { recipe: Recipe; onChange: (recipe: Recipe) => void; at: FaultsAt };

export function StepList({ recipe, onChange, at }: Props) {
  const [openId, setOpenId] = useState<string | null>(null);
  const [mended, setMended] = useState<string[]>([]);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const placeOf = (id: unknown) => recipe.steps.findIndex((step) => step.id === id);
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over) onChange(withStepMoved(recipe, placeOf(active.id), placeOf(over.id)));
  };
  const ids = recipe.steps.map(({ id }, index) => (placeOf(id) === index ? id : `${id} ${index}`));
  return (
    <Card style={{ gap: 6 }}>
      <Subheading>{WORDS.steps}</Subheading>
      <Text size="small" quiet>
        {WORDS.dragHint}
      </Text>
      {mended.length > 0 ? (
        <View role="status" testID="mended">
          {mended.map((line) => (
            <Text key={line} size="small" bold>
              {line}
            </Text>
          ))}
        </View>
      ) : null}
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={dropped}
        accessibility={{
          screenReaderInstructions: { draggable: WORDS.arrowsMoveStep },
        }}
      >
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          {recipe.steps.map((step, index) => (
            <StepRow
              key={ids[index]}
              id={ids[index]!}
              step={step}
              open={openId === ids[index]}
              faults={at(`steps.${index}`)}
              onOpen={() => setOpenId(openId === ids[index] ? null : ids[index]!)}
              onChange={(next) => onChange(withStep(recipe, index, next))}
              onMove={(by) => onChange(withStepMoved(recipe, index, index + by))}
              onRemove={() => {
                const without = withoutStep(recipe, index);
                onChange(without.recipe);
                setMended([WORDS.isRemoved(step.name), ...without.mended]);
              }}
              onAdd={() => {
                const next = withStepAfter(recipe, index);
                onChange(next);
                setOpenId(next.steps[index + 1]!.id);
              }}
            />
          ))}
        </SortableContext>
      </DndContext>
    </Card>
  );
}

type RowProps = {
  id: string;
  step: RecipeStep;
  open: boolean;
  faults: ReturnType<FaultsAt>;
  onOpen: () => void;
  onChange: (step: RecipeStep) => void;
  onMove: (by: 1 | -1) => void;
  onRemove: () => void;
  onAdd: () => void;
};

function StepRow({ id, step, open, faults, onOpen, onChange, onMove, onRemove, onAdd }: RowProps) {
  const theme = useTheme();
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id });
  const style: CSSProperties = {
    transform: CSS.Translate.toString(transform) ?? '',
    transition: transition ?? '',
    position: 'relative',
    zIndex: isDragging ? 1 : 0,
    background: isDragging ? theme.coolPale : theme.surface,
    borderTop: `1px solid ${theme.rim}`,
  };
  return (
    <div ref={setNodeRef} style={style} data-testid={`step-${step.id}`}>
      <Row style={{ gap: 4, minHeight: 52, paddingVertical: 4 }}>
        <Grip says={`Move ${step.name}`} drag={{ attributes, listeners }} onMove={onMove} />
        <View style={{ flex: 1 }}>
          <Text bold={step.phase === 'brew'} quiet={!step.attended}>
            {step.name}
          </Text>
          <Text size="small" quiet>
            {summary(step)}
          </Text>
        </View>
        <Button
          kind="bare"
          label={open ? WORDS.close : WORDS.open}
          says={`${open ? WORDS.close : WORDS.open} ${step.name}`}
          onPress={onOpen}
        />
      </Row>
      <FaultLines faults={faults} />
      {open ? (
        <View style={{ gap: 10, paddingBottom: 12, paddingLeft: 8 }}>
          <StepForm step={step} faults={faults} onChange={onChange} />
          <Row style={{ flexWrap: 'wrap', gap: 8 }}>
            <Button label={WORDS.up} says={`Move ${step.name} up`} onPress={() => onMove(-1)} />
            <Button label={WORDS.down} says={`Move ${step.name} down`} onPress={() => onMove(1)} />
            <Button label={WORDS.addAStepAfter} onPress={onAdd} />
            <Button
              kind="ruled"
              label={WORDS.remove}
              says={WORDS.removeForName(step.name)}
              onPress={onRemove}
            />
          </Row>
        </View>
      ) : null}
    </div>
  );
}

function summary({ start, kind, pour, phase }: RecipeStep): string {
  const when =
    'when' in start
      ? WORDS.whenForCueAbout(START_CUE_WORDS[start.when], showClock(start.aboutS))
      : 'atS' in start
        ? WORDS.at(showClock(start.atS))
        : start.afterS === 0
          ? WORDS.followsOn
          : WORDS.afterS(start.afterS);
  return [
    phase,
    kind,
    when,
    pour ? amountInWords(pour.amount) : null,
    ...(pour?.paths ?? []).map(({ path }) => path),
  ]
    .filter(Boolean)
    .join(' · ');
}

function amountInWords(amount: NonNullable<RecipeStep['pour']>['amount']): string {
  if ('timesDose' in amount) return WORDS.doseForTimesDose(amount.timesDose);
  if ('toShare' in amount) return WORDS.toForToShare(Math.round(amount.toShare * 1000) / 10);
  if ('restParts' in amount) return WORDS.onePartOfRest(amount.restParts);
  return `${amount.g} g`;
}
