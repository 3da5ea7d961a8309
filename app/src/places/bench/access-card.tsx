/**
 * Who may come in: the devices that are paired with the bar, a code for another one, and keys for programs.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { setStringAsync } from 'expo-clipboard';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { formatDistanceToNow } from 'date-fns/formatDistanceToNow';
import { Controller, useForm, useWatch, type Control, type FieldValues, type Path } from 'react-hook-form';
import { standardSchemaResolver } from '@hookform/resolvers/standard-schema';
import { DEVICE_ROLES, KEY_ROLES, isKeyRole, type DeviceRole } from '@even-kettle/core/contract/roles';
import type { BodySent } from '@even-kettle/core/contract/routes';
import type { Access, AccessDevice, Bar, Invitation } from '@even-kettle/core/contract';
import { useHere } from '../../client/bar-context';
import { schemas } from '../../client/load-schemas';
import { Refused } from '../../client/request';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Field } from '../../ui/field';
import { Row } from '../../ui/page';
import { QrPicture } from '../../ui/qr-picture';
import { Select } from '../../ui/select';
import { Subheading, Text } from '../../ui/text';
import { ROLE_MEANS, ROLE_NAMES } from '../../words/role-words';
import { WORDS } from './words';

const ACCESS = ['access'];
const LOOK_MS = 5000;

export function AccessCards({ bar }: { bar: Bar }) {
  const { api } = useHere();
  const access = useQuery({ queryKey: ACCESS, queryFn: api.access, refetchInterval: LOOK_MS });
  if (!access.data) return null;
  return (
    <>
      {access.data.pairs ? <AddressCard access={access.data} /> : null}
      <DevicesCard access={access.data} bar={bar} />
      <KeysCard access={access.data} />
    </>
  );
}

/** Where the bar is found, and how a device comes to trust it. */
function AddressCard({ access: { addresses, fingerprint } }: { access: Access }) {
  const [address = ''] = addresses;
  const trust = `${address.replace(/^https:/, 'http:')}/trust`;
  return (
    <Card style={{ gap: 8 }}>
      <Subheading>{WORDS.onTheNetwork}</Subheading>
      {addresses.map((each) => (
        <Text key={each}>{each}</Text>
      ))}
      {fingerprint === null ? null : (
        <Row style={{ alignItems: 'flex-start', flexWrap: 'wrap' }}>
          <QrPicture text={trust} size={132} says={WORDS.trustAsCode} />
          <View style={{ flex: 1, minWidth: 180, gap: 6 }}>
            <Text>{WORDS.trustHint(trust)}</Text>
            <Text size="small" quiet>
              {WORDS.fingerprint}
            </Text>
            <Text size="small" bold>
              {fingerprint.split(':').join(' ')}
            </Text>
          </View>
        </Row>
      )}
    </Card>
  );
}

function useAccessChange<Asked, Answer>(work: (asked: Asked) => Promise<Answer>) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: work,
    onSettled: () => queries.invalidateQueries({ queryKey: ACCESS }),
  });
}

function DevicesCard({ access, bar }: { access: Access; bar: Bar }) {
  const devices = access.devices.filter(({ role }) => !isKeyRole(role));
  return (
    <Card style={{ gap: 10 }}>
      <Subheading>{WORDS.devices}</Subheading>
      {access.pairs ? null : <Text quiet>{WORDS.pairsNobody}</Text>}
      {devices.map((device) => (
        <DeviceLine key={device.id} device={device} bar={bar} />
      ))}
      {access.pairs ? <Inviting bar={bar} /> : null}
    </Card>
  );
}

function DeviceLine({ device, bar }: { device: AccessDevice; bar: Bar }) {
  const { api } = useHere();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState(device.name);
  const change = useAccessChange((asked: Parameters<typeof api.changeAccess>[1]) =>
    api.changeAccess(device.id, asked),
  );
  const revoke = useAccessChange(() => api.revoke(device.id));
  const person = bar.people.find(({ id }) => id === device.person)?.name;
  const told = change.error ?? revoke.error;
  return (
    <View style={{ gap: 8 }} testID="device-line">
      <Row>
        <View style={{ flex: 1 }}>
          <Text bold>{device.here ? WORDS.thisOne(device.name) : device.name}</Text>
          <Text size="small" quiet>
            {[ROLE_NAMES[device.role], person, seenText(device)].filter(Boolean).join(' · ')}
          </Text>
        </View>
        <Button
          label={open ? WORDS.close : WORDS.change}
          says={open ? WORDS.closeDevice(device.name) : WORDS.changeDevice(device.name)}
          onPress={() => setOpen(!open)}
        />
      </Row>
      {open ? (
        <>
          <Row style={{ alignItems: 'flex-end' }}>
            <Field
              label={WORDS.name}
              value={name}
              onChangeText={setName}
              maxLength={40}
              style={{ flex: 1 }}
            />
            <Button
              label={WORDS.save}
              says={WORDS.saveDeviceName}
              disabled={name.trim() === '' || name.trim() === device.name}
              onPress={() => change.mutate({ name: name.trim() })}
            />
          </Row>
          <RoleChoice value={device.role as DeviceRole} onChange={(role) => change.mutate({ role })} />
          <PersonSelect
            bar={bar}
            value={device.person ?? null}
            onChange={(person) => change.mutate({ person })}
          />
          <Button
            kind="ruled"
            label={WORDS.remove}
            says={WORDS.removeDevice(device.name)}
            disabled={revoke.isPending}
            onPress={() => revoke.mutate(undefined)}
            style={{ alignSelf: 'flex-start' }}
          />
        </>
      ) : null}
      <Fault error={told} />
    </View>
  );
}

const seenText = ({ seenMs }: AccessDevice): string =>
  seenMs === null ? WORDS.neverSeen : WORDS.seenAgo(formatDistanceToNow(seenMs));

const RoleChoice = ({ value, onChange }: { value: DeviceRole; onChange: (role: DeviceRole) => void }) => (
  <View style={{ gap: 4 }}>
    <Choice
      name={WORDS.role}
      value={value}
      onChange={onChange}
      options={DEVICE_ROLES.map((role) => ({ value: role, label: ROLE_NAMES[role] }))}
    />
    <Text size="small" quiet>
      {ROLE_MEANS[value]}
    </Text>
  </View>
);

const NOBODY = '';
function PersonSelect({
  bar,
  value,
  onChange,
}: {
  bar: Bar;
  value: string | null;
  onChange: (person: string | null) => void;
}) {
  if (bar.people.length === 0) return null;
  return (
    <Select
      label={WORDS.whoseDevice}
      value={value ?? NOBODY}
      options={[
        { value: NOBODY, label: WORDS.nobodyInParticular },
        ...bar.people.map(({ id, name }) => ({ value: id, label: name })),
      ]}
      onChange={(id) => onChange(id === NOBODY ? null : id)}
    />
  );
}

/** A code for another device, shown until it is used or over. */
function Inviting({ bar }: { bar: Bar }) {
  const { api } = useHere();
  const { control, handleSubmit, reset } = useForm<BodySent<'invite'>>({
    defaultValues: { role: 'barista', name: '' },
    resolver: standardSchemaResolver(schemas().invite),
  });
  const role = useWatch({ control, name: 'role' });
  const invite = useAccessChange(api.invite);
  if (invite.data)
    return <InvitationShown invitation={invite.data} onDone={() => (invite.reset(), reset())} />;
  return (
    <View style={{ gap: 10 }}>
      <Text bold>{WORDS.anotherDevice}</Text>
      <Controller
        control={control}
        name="role"
        render={({ field }) => <RoleChoice value={field.value} onChange={field.onChange} />}
      />
      <NameField control={control} label={WORDS.deviceName} />
      {role === 'board' ? null : (
        <Controller
          control={control}
          name="person"
          render={({ field }) => (
            <PersonSelect
              bar={bar}
              value={field.value ?? null}
              onChange={(id) => field.onChange(id ?? undefined)}
            />
          )}
        />
      )}
      <Fault error={invite.error} />
      <Button
        kind="main"
        label={WORDS.showACode}
        disabled={invite.isPending}
        onPress={() => void handleSubmit((typed) => invite.mutate(typed))()}
        testID="show-code"
      />
    </View>
  );
}

/** A name that is typed, with what is wrong of it. */
function NameField<Typed extends FieldValues & { name: string }>({
  control,
  label,
}: {
  control: Control<Typed>;
  label: string;
}) {
  return (
    <Controller
      control={control}
      name={'name' as Path<Typed>}
      render={({ field, fieldState }) => (
        <>
          <Field
            label={label}
            value={field.value}
            onChangeText={field.onChange}
            maxLength={40}
            fault={fieldState.error !== undefined}
          />
          {fieldState.error ? <Text role="alert">{WORDS.nameWanted}</Text> : null}
        </>
      )}
    />
  );
}

function InvitationShown({ invitation, onDone }: { invitation: Invitation; onDone: () => void }) {
  const { code, link, untilMs } = invitation;
  return (
    <View style={{ gap: 8 }} testID="invitation">
      <Text>{WORDS.pairHint(link.split('#')[0]!)}</Text>
      <Row style={{ flexWrap: 'wrap' }}>
        <QrPicture text={link} size={180} says={WORDS.linkAsCode} />
        <View style={{ gap: 4 }}>
          <Text bold style={{ fontSize: 40, lineHeight: 52 }} testID="invitation-code">
            {`${code.slice(0, 3)} ${code.slice(3)}`}
          </Text>
          <Text size="small" quiet>
            {WORDS.goodUntil(
              new Date(untilMs).toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' }),
            )}
          </Text>
        </View>
      </Row>
      <Button label={WORDS.done} onPress={onDone} style={{ alignSelf: 'flex-start' }} />
    </View>
  );
}

/** Keys of programs. A key is shown once, as it is made. */
function KeysCard({ access }: { access: Access }) {
  const { api } = useHere();
  const { control, handleSubmit, reset } = useForm<BodySent<'makeKey'>>({
    defaultValues: { role: 'till', name: '' },
    resolver: standardSchemaResolver(schemas().makeKey),
  });
  const role = useWatch({ control, name: 'role' });
  const make = useAccessChange(api.makeKey);
  return (
    <Card style={{ gap: 10 }}>
      <Subheading>{WORDS.keysOfPrograms}</Subheading>
      {access.devices
        .filter((each) => isKeyRole(each.role))
        .map((key) => (
          <KeyLine key={key.id} device={key} />
        ))}
      {make.data ? (
        <MadeKey of={make.data.key} onDone={() => (make.reset(), reset())} />
      ) : (
        <>
          <Controller
            control={control}
            name="role"
            render={({ field }) => (
              <Choice
                name={WORDS.whatFor}
                value={field.value}
                onChange={field.onChange}
                options={KEY_ROLES.map((each) => ({ value: each, label: ROLE_NAMES[each] }))}
              />
            )}
          />
          <Text size="small" quiet>
            {ROLE_MEANS[role]}
          </Text>
          <NameField control={control} label={WORDS.programName} />
          <Fault error={make.error} />
          <Button
            label={WORDS.makeAKey}
            disabled={make.isPending}
            onPress={() => void handleSubmit((typed) => make.mutate(typed))()}
            style={{ alignSelf: 'flex-start' }}
          />
        </>
      )}
    </Card>
  );
}

function MadeKey({ of, onDone }: { of: string; onDone: () => void }) {
  const [isCopied, setCopied] = useState(false);
  return (
    <View style={{ gap: 8 }}>
      <Text bold>{WORDS.keyOnce}</Text>
      <Text testID="made-key">{of}</Text>
      <Row>
        <Button
          label={isCopied ? WORDS.copied : WORDS.copy}
          onPress={() => void setStringAsync(of).then(setCopied, () => setCopied(false))}
        />
        <Button label={WORDS.done} onPress={onDone} />
      </Row>
    </View>
  );
}

function KeyLine({ device }: { device: AccessDevice }) {
  const { api } = useHere();
  const revoke = useAccessChange(() => api.revoke(device.id));
  return (
    <Row>
      <View style={{ flex: 1 }}>
        <Text bold>{device.name}</Text>
        <Text size="small" quiet>
          {`${ROLE_NAMES[device.role]} · ${seenText(device)}`}
        </Text>
      </View>
      <Button
        label={WORDS.remove}
        says={WORDS.removeDevice(device.name)}
        disabled={revoke.isPending}
        onPress={() => revoke.mutate(undefined)}
      />
    </Row>
  );
}

function Fault({ error }: { error: Error | null }) {
  if (!error) return null;
  return (
    <Text role="alert" bold>
      {error instanceof Refused ? error.message : WORDS.serverUnreachable}
    </Text>
  );
}
