/**
 * Every part of the interface in every theme, for looking at while it is built. Not linked, and not there in production.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { Badge } from '../../ui/badge';
import { Button, type ButtonKind } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { DayField } from '../../ui/day-field';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { Note } from '../../ui/note';
import { Loading, Notice } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Select } from '../../ui/select';
import { Switch } from '../../ui/switch';
import { Heading, Subheading, Text } from '../../ui/text';
import { DAY, EVENING, SUN, type Theme } from '../../ui/theme';
import { WithTheme, useTheme } from '../../ui/use-theme';

const KINDS: ButtonKind[] = ['plain', 'main', 'chosen', 'ruled', 'bare'];
const THEMES: [name: string, theme: Theme][] = [
  ['Day', DAY],
  ['Evening', EVENING],
  ['Strong sun', SUN],
];

export function UiPage() {
  if (process.env['NODE_ENV'] === 'production') return <Notice title="No such place" />;
  return (
    <Page wide>
      <Heading>Parts of the interface</Heading>
      {THEMES.map(([name, theme]) => (
        <WithTheme key={name} theme={theme}>
          <Parts name={name} />
        </WithTheme>
      ))}
    </Page>
  );
}

function Parts({ name }: { name: string }) {
  const theme = useTheme();
  const [text, setText] = useState('');
  const [chosen, setChosen] = useState('one');
  const [on, setOn] = useState(true);
  const [open, setOpen] = useState(false);
  const options = ['one', 'two', 'three'].map((value) => ({ value, label: `Option ${value}` }));
  return (
    <View style={{ backgroundColor: theme.bg, padding: 16, gap: 12 }}>
      <Subheading>{name}</Subheading>
      <Card>
        <Row style={{ flexWrap: 'wrap' }}>
          {KINDS.map((kind) => (
            <Button
              key={kind}
              kind={kind}
              label={kind}
              says={`${name}: ${kind}`}
              onPress={() => setOpen(kind === 'main')}
            />
          ))}
          <Button label="" icon="close" says={`${name}: icon`} onPress={() => undefined} />
          <Button label="disabled" says={`${name}: disabled`} disabled onPress={() => undefined} />
          <Badge badge={1} />
        </Row>
        <Choice name={`${name}: choice`} value={chosen} options={options} onChange={setChosen} />
        <Row style={{ alignItems: 'flex-end', flexWrap: 'wrap' }}>
          <Field
            label="Field"
            says={`${name}: field`}
            value={text}
            onChangeText={setText}
            style={{ width: 160 }}
          />
          <Select
            label="List"
            says={`${name}: list`}
            value={chosen}
            options={options}
            onChange={setChosen}
            style={{ width: 180 }}
          />
          <DayField
            label={`${name}: day`}
            value="2026-11-20"
            onChange={() => undefined}
            style={{ width: 170 }}
          />
        </Row>
        <Row>
          <Switch label={`${name}: switch`} on={on} onChange={setOn} />
        </Row>
        <Text size="figure">128</Text>
        <Text quiet>Quiet words beside it.</Text>
      </Card>
      <Notice ruled title="Something cannot be taken back">
        With the hatched edge.
      </Notice>
      <Note>A line across the page that stays until it is no longer true.</Note>
      <Loading what="something" height={60} />
      {open ? (
        <Dialog
          title={`${name}: dialog`}
          onClose={() => setOpen(false)}
          actions={<Button label="Close" onPress={() => setOpen(false)} />}
        >
          <Text>It takes the keyboard, keeps it, and gives it back.</Text>
        </Dialog>
      ) : null}
    </View>
  );
}
