/**
 * How long hands really take for what is theirs to do, person by person: what the planner counts with.
 */
import { View } from 'react-native';
import { useQuery } from '@tanstack/react-query';
import type { HandsLearnt } from '@even-kettle/core/contract';
import type { StepKind } from '@even-kettle/core/recipe';
import { useBar, useHere } from '../../client/bar-context';
import { useTheme } from '../../ui/use-theme';
import { Card } from '../../ui/card';
import { Notice } from '../../ui/notice';
import { Halves, Page, Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { Loaded, PageHead } from '../../parts/loaded';
import { WORDS } from './words';

const STEP_WORDS: Partial<Record<StepKind, string>> = {
  fill: WORDS.fillTheKettle,
  weigh: WORDS.weighTheBeans,
  grind: 'grind',
  'set-filter': WORDS.setRinsedFilter,
  warm: WORDS.warmBrewerAndServer,
  load: WORDS.loadLevelTare,
  seal: WORDS.sealTheTop,
  flame: WORDS.seeToTheFlame,
  decant: 'decant',
  serve: WORDS.cupAndHandOver,
  clean: WORDS.cleanTheStation,
};

export function HandsPage() {
  const { api } = useHere();
  const { bar } = useBar();
  const cardOf = ({ id, steps }: HandsLearnt['people'][number]) => (
    <Card key={id ?? 'bar'} style={{ gap: 10 }}>
      <Subheading>
        {id === null ? WORDS.theBarLabel : (bar?.people.find((person) => person.id === id)?.name ?? id)}
      </Subheading>
      {steps.map((step) => (
        <StepRow key={step.kind} step={step} />
      ))}
    </Card>
  );
  const hands = useQuery({ queryKey: ['log', 'hands'], queryFn: api.hands });
  return (
    <Page wide>
      <PageHead title={WORDS.hands} />
      <Loaded of={hands} what={WORDS.howLongHandsTake}>
        {({ people }) =>
          people[0]?.steps.length === 0 ? (
            <Notice title={WORDS.notKnownYet}>{WORDS.sixStepsHint}</Notice>
          ) : (
            <>
              <Text quiet>{WORDS.handsLegend}</Text>
              <Halves
                first={people.slice(0, Math.ceil(people.length / 2)).map(cardOf)}
                second={people.slice(Math.ceil(people.length / 2)).map(cardOf)}
              />
            </>
          )
        }
      </Loaded>
    </Page>
  );
}

type Step = HandsLearnt['people'][number]['steps'][number];

function StepRow({ step: { kind, cardS, medianS, fromS, toS, steps } }: { step: Step }) {
  const theme = useTheme();
  const most = Math.max(toS, cardS) * 1.1;
  const at = (seconds: number) => `${(100 * seconds) / most}%` as const;
  const mark = (seconds: number, width: number, color: string, top: number, height: number) => (
    <View
      style={{
        position: 'absolute',
        left: at(seconds),
        marginLeft: -width / 2,
        top,
        width,
        height,
        backgroundColor: color,
      }}
    />
  );
  return (
    <View
      style={{ gap: 4 }}
      role="img"
      aria-label={WORDS.stepTimes(STEP_WORDS[kind] ?? kind, medianS, fromS, toS, cardS, steps)}
    >
      <Row style={{ justifyContent: 'space-between' }}>
        <Text style={{ flexShrink: 1 }}>{STEP_WORDS[kind] ?? kind}</Text>
        <Text bold>{Math.round(medianS)} s</Text>
      </Row>
      <View style={{ height: 18 }} aria-hidden>
        <View
          style={{
            position: 'absolute',
            left: 0,
            right: 0,
            top: 8,
            height: 2,
            backgroundColor: theme.coolPale,
          }}
        />
        <View
          style={{
            position: 'absolute',
            left: at(fromS),
            width: at(toS - fromS),
            top: 5,
            height: 8,
            borderRadius: 4,
            backgroundColor: theme.cool,
          }}
        />
        {mark(cardS, 2, theme.ink2, 0, 18)}
        {mark(medianS, 6, theme.ink, 2, 14)}
      </View>
      <Text size="small" quiet>
        {WORDS.stepTimesFrom(Math.round(fromS), Math.round(toS), steps, Math.round(cardS))}
      </Text>
    </View>
  );
}
