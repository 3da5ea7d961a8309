/**
 * A list that stands on the bench, changed as a whole: nothing is stored before it is set, and what is wrong is told at
 * its field.
 */
import { useState, type ReactNode } from 'react';
import { View, type StyleProp, type ViewStyle } from 'react-native';
import type { Bar, BarChange } from '@even-kettle/core/contract';
import { Refused } from '../../client/request';
import { newId } from '../../client/bar-context';
import { Field } from '../../ui/field';
import { Form } from '../../ui/by-keys';
import { LeaveTap } from '../../ui/leave-tap';
import { useTheme } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { useChangeForm } from '../../parts/use-change';
import { WORDS } from './words';

type ListKey =
  | 'menu'
  | 'queues'
  | 'coffees'
  | 'stations'
  | 'brewers'
  | 'kettles'
  | 'grinders'
  | 'people'
  | 'cloths'
  | 'opening'
  | 'closing';
type Item<Key extends ListKey> = NonNullable<Bar[Key]>[number];

type Props<Key extends ListKey> = {
  title: string;
  intro?: string;
  /** Which setting of the bar it is. */
  setting: Key;
  bar: Bar;
  /** One item in a line, while it is closed. */
  line: (item: Item<Key>) => { name: string; detail: string };
  form: (
    item: Item<Key>,
    set: (part: Partial<Item<Key>>) => void,
    wrong: (field: string) => boolean,
  ) => ReactNode;
  fresh: (id: string) => Item<Key>;
  addLabel: string;
};

type NameProps = {
  of: { name: string };
  set: (part: { name: string }) => void;
  wrong: (field: string) => boolean;
  /** Letters; what stands on the bar's cards is short. */
  most?: number;
  style?: StyleProp<ViewStyle>;
};

/** What a thing is called. */
export const NameField = ({ of, set, wrong, most = 24, style }: NameProps) => (
  <Field
    label={WORDS.name}
    value={of.name}
    maxLength={most}
    onChangeText={(name) => set({ name })}
    fault={wrong('name')}
    style={style}
  />
);

/** Things of a list as they were being changed, whatever is still wrong with them. */
const isListOf =
  (setting: ListKey) =>
  (kept: unknown): kept is BarChange => {
    const items = (kept as Partial<Record<ListKey, unknown>> | null)?.[setting];
    return (
      Array.isArray(items) && items.every((each: { id?: unknown } | null) => typeof each?.id === 'string')
    );
  };

export function ListCard<Key extends ListKey>({
  title,
  intro,
  setting,
  bar,
  line,
  form,
  fresh,
  addLabel,
}: Props<Key>) {
  const theme = useTheme();
  const [openId, setOpenId] = useState<string | null>(null);
  const change = useChangeForm(`bench.${setting}`, { [setting]: bar[setting] ?? [] }, isListOf(setting), () =>
    setOpenId(null),
  );
  const items = change.values[setting] as Item<Key>[];
  const edit = (next: Item<Key>[]) => change.set({ [setting]: next });
  const faultsAt = (index: number) =>
    change.faults.filter(
      ({ field }) => field === `${setting}.${index}` || field.startsWith(`${setting}.${index}.`),
    );

  return (
    <Card ruled={change.faults.length > 0 || change.failure !== null}>
      <Form onSubmit={() => change.changed && change.save()} style={{ gap: 4 }}>
        <Subheading>{title}</Subheading>
        {intro ? (
          <Text size="small" quiet>
            {intro}
          </Text>
        ) : null}
        {items.map((item, index) => {
          const open = openId === item.id;
          const { name, detail } = line(item);
          const faults = faultsAt(index);
          return (
            <View key={item.id} style={{ borderTopWidth: 1, borderColor: theme.rim }}>
              <Row style={{ minHeight: 52 }}>
                <View style={{ flex: 1 }}>
                  <Text bold={open}>{name}</Text>
                  <Text size="small" quiet>
                    {detail}
                  </Text>
                </View>
                <Button
                  kind="bare"
                  label={open ? WORDS.close : WORDS.open}
                  says={`${open ? WORDS.close : WORDS.open} ${name}`}
                  onPress={() => setOpenId(open ? null : item.id)}
                />
              </Row>
              {open ? (
                <View style={{ gap: 10, paddingBottom: 12 }}>
                  {form(
                    item,
                    (part) => edit(items.map((each) => (each.id === item.id ? { ...each, ...part } : each))),
                    (field) => faults.some((fault) => fault.field.includes(`.${field}`)),
                  )}
                  <Button
                    kind="ruled"
                    label={WORDS.removeFromTheBench}
                    says={WORDS.takeOffTheBench(name)}
                    onPress={() => edit(items.filter((each) => each.id !== item.id))}
                  />
                </View>
              ) : null}
              {faults.map(({ field, reason }) => (
                <Text key={field} role="alert" bold size="small" style={{ paddingBottom: 6 }}>
                  {reason}
                </Text>
              ))}
            </View>
          );
        })}
        <Row style={{ flexWrap: 'wrap', paddingTop: 6 }}>
          <Button
            icon="plus"
            label={addLabel}
            onPress={() => {
              const item = fresh(newId());
              edit([...items, item]);
              setOpenId(item.id);
            }}
          />
          {change.changed ? (
            <>
              <Button
                kind="main"
                label={WORDS.save}
                says={WORDS.saveForTitle(title.toLowerCase())}
                onPress={change.save}
                disabled={change.saving}
              />
              <LeaveTap label={WORDS.cancel} changed onLeave={change.cancel} />
            </>
          ) : null}
        </Row>
        {change.faults
          .filter(({ field }) => field === setting)
          .map(({ reason }) => (
            <Text key={reason} role="alert" bold size="small">
              {title}: {reason}
            </Text>
          ))}
        <Failure error={change.failure} shown={change.faults.length > 0} />
      </Form>
    </Card>
  );
}

/** What went wrong as a whole; faults of items are told at the items. */
export function Failure({ error, shown = false }: { error: Error | null; shown?: boolean }) {
  if (!error || shown) return null;
  return (
    <Text role="alert" bold>
      {error instanceof Refused ? error.message : WORDS.notStored}
    </Text>
  );
}
