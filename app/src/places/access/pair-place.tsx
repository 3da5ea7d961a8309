/**
 * What a device shows that the bar does not know: by a code, or by the link that it was opened with, it is paired.
 */
import { useState } from 'react';
import { router } from 'expo-router';
import { Controller, useForm, useWatch } from 'react-hook-form';
import { standardSchemaResolver } from '@hookform/resolvers/standard-schema';
import { useMutation } from '@tanstack/react-query';
import { useBar, useHere } from '../../client/bar-context';
import { schemas } from '../../client/load-schemas';
import { Refused } from '../../client/request';
import { setDevice } from '../../device/settings';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Field } from '../../ui/field';
import { Page } from '../../ui/page';
import { Heading, Text } from '../../ui/text';
import { ROLE_NAMES } from '../../words/role-words';
import { WORDS } from './words';

type Typed = { secret: string; name?: string | undefined };

let secretRead = '';

/** What stands behind # in the link. It is taken out of the address at once, so that nobody reads it there later. */
function secretOfLink(): string {
  const secret = window.location.hash.slice(1);
  if (secret !== '') {
    secretRead = secret;
    window.history.replaceState(window.history.state, '', window.location.pathname);
  }
  return secretRead;
}

export function PairPlace() {
  const { api, store } = useHere();
  const { shut, waiting } = useBar();
  const [link] = useState(secretOfLink);
  const { control, handleSubmit, formState } = useForm<Typed>({
    defaultValues: { secret: link },
    resolver: standardSchemaResolver(schemas().pair),
  });
  const pairing = useMutation({
    mutationFn: ({ secret, name }: Typed) => api.pair(secret, name ?? ''),
    onSuccess: async ({ device }) => {
      secretRead = '';
      if (device?.person) setDevice({ person: device.person });
      await store.reload();
      router.replace(device?.role === 'board' ? '/board' : '/');
    },
  });
  const secret = useWatch({ control, name: 'secret' });
  const send = () => void handleSubmit((typed) => pairing.mutate(typed))();
  const fault = formState.errors.secret?.message ?? formState.errors.name?.message ?? faultOf(pairing.error);
  return (
    <Page>
      <Heading>{shut === 'revoked' ? WORDS.wasTakenOff : WORDS.pairThisDevice}</Heading>
      <Card style={{ gap: 12 }}>
        <Text>{link === '' ? WORDS.whoeverCanPair : WORDS.linkIsRead}</Text>
        {waiting > 0 ? <Text>{WORDS.tapsWait(waiting)}</Text> : null}
        {link === '' ? (
          <Controller
            control={control}
            name="secret"
            render={({ field }) => (
              <Field
                label={WORDS.code}
                says={WORDS.sixDigits}
                size="figure"
                inputMode="numeric"
                maxLength={6}
                value={field.value}
                onChangeText={(text) => field.onChange(text.replace(/\D/g, ''))}
                fault={formState.errors.secret !== undefined}
                testID="pair-code"
              />
            )}
          />
        ) : null}
        <Controller
          control={control}
          name="name"
          render={({ field }) => (
            <Field
              label={WORDS.deviceName}
              maxLength={40}
              value={field.value ?? ''}
              onChangeText={(text) => field.onChange(text === '' ? undefined : text)}
              fault={formState.errors.name !== undefined}
            />
          )}
        />
        {fault ? (
          <Text role="alert" bold>
            {fault}
          </Text>
        ) : null}
        {pairing.data?.device ? (
          <Text role="status">
            {WORDS.isPaired(pairing.data.device.name, ROLE_NAMES[pairing.data.device.role])}
          </Text>
        ) : null}
        <Button
          kind="main"
          label={pairing.isPending ? WORDS.pairing : WORDS.pair}
          disabled={pairing.isPending || secret.length < 6}
          onPress={send}
          testID="pair"
        />
      </Card>
    </Page>
  );
}

const faultOf = (error: Error | null): string | null =>
  error === null ? null : error instanceof Refused ? error.message : WORDS.serverUnreachable;
