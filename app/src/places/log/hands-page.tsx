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
import { Loaded, PageHead } from './loaded';

const WORDS: Partial<Record<StepKind, string>> = {
  fill: 'fill the kettle',
  weigh: 'weigh the beans',
  grind: 'grind',
  'set-filter': 'set and rinse the filter',
  warm: 'warm brewer and server',
  load: 'load, level, tare',
  seal: 'seal the top',
  flame: 'see to the flame',
  decant: 'decant',
  serve: 'cup and hand over',
  clean: 'clean the station',
};

export function HandsPage() {
  const { api } = useHere();
  const { bar } = useBar();
  const cardOf = ({ id, steps }: HandsLearnt['people'][number]) => (
    <Card key={id ?? 'bar'} style={{ gap: 10 }}>
      <Subheading>
        {id === null ? 'The bar' : (bar?.people.find((person) => person.id === id)?.name ?? id)}
      </Subheading>
      {steps.map((step) => (
        <StepRow key={step.kind} step={step} />
      ))}
    </Card>
  );
  const hands = useQuery({ queryKey: ['log', 'hands'], queryFn: api.hands });
  return (
    <Page wide>
      <PageHead title="Hands" />
      <Loaded of={hands} what="how long hands take">
        {({ people }) =>
          people[0]?.steps.length === 0 ? (
            <Notice title="Not known yet">
              Six steps of a kind teach how long it takes here. Until then the cards’ own times count.
            </Notice>
          ) : (
            <>
              <Text quiet>
                The mark is the middle of the latest brews, the bar holds eight of ten, the line is what the
                card gives. The planner counts with the middle: a person’s own, or the bar’s for who is new.
              </Text>
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
      aria-label={`${WORDS[kind] ?? kind}: ${medianS} s in the middle, eight of ten from ${fromS} to ${toS} s, the card gives ${cardS} s, from ${steps} steps`}
    >
      <Row style={{ justifyContent: 'space-between' }}>
        <Text style={{ flexShrink: 1 }}>{WORDS[kind] ?? kind}</Text>
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
        {Math.round(fromS)} to {Math.round(toS)} s, from {steps} steps; the card gives {Math.round(cardS)} s
      </Text>
    </View>
  );
}
