/**
 * Practice: what can be trained, apart from the bar.
 */
import { router, type Href } from 'expo-router';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Page, Row } from '../../ui/page';
import { Heading, Subheading, Text } from '../../ui/text';
import { LessonsCard } from './lessons-card';
import { WORDS } from './words';

const DRILLS: { name: string; is: string; href: Extract<Href, string> }[] = [
  { name: WORDS.pourDrill, is: WORDS.pourDrillIs, href: '/practice/pour' },
  { name: WORDS.rushDrill, is: WORDS.rushDrillIs, href: '/practice/rush' },
  { name: WORDS.rushLab, is: WORDS.rushLabIs, href: '/practice/lab' },
];

export function PracticePage() {
  return (
    <Page>
      <Row style={{ justifyContent: 'space-between' }}>
        <Heading>{WORDS.practice}</Heading>
        <Button icon="back" label={WORDS.bench} kind="bare" onPress={() => router.navigate('/bench')} />
      </Row>
      <Text>{WORDS.intro}</Text>
      {DRILLS.map(({ name, is, href }) => (
        <Card key={name} style={{ alignItems: 'flex-start' }}>
          <Subheading>{name}</Subheading>
          <Text>{is}</Text>
          <Button
            kind="main"
            label={WORDS.start}
            says={`${WORDS.start}: ${name}`}
            onPress={() => router.push(href)}
          />
        </Card>
      ))}
      <LessonsCard />
    </Page>
  );
}
