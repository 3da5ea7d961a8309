/**
 * One step of the first day: closed with what was done, or open with its form, to save or to skip.
 */
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { Refused } from '../../client/request';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';
import { WORDS } from './words';

export type StepId = keyof typeof WORDS.stepNames;

type Props = {
  id: StepId;
  isOpen: boolean;
  /** What was done, in a line; null while it is not. */
  done: string | null;
  isSkipped: boolean;
  onOpen: () => void;
  onSkip: () => void;
  children: ReactNode;
};

export function Step({ id, isOpen, done, isSkipped, onOpen, onSkip, children }: Props) {
  const name = WORDS.stepNames[id];
  return (
    <Card>
      <Row style={{ justifyContent: 'space-between' }}>
        <View style={{ flex: 1 }}>
          <Subheading>{name}</Subheading>
          {isOpen ? null : (
            <Text size="small" quiet>
              {done ?? (isSkipped ? WORDS.skipped : '')}
            </Text>
          )}
        </View>
        {isOpen ? (
          done === null ? (
            <Button kind="bare" label={WORDS.skip} says={WORDS.skipOf(name)} onPress={onSkip} />
          ) : (
            <Button label={WORDS.next} says={WORDS.nextAfter(name)} onPress={onSkip} />
          )
        ) : (
          <Button
            kind="bare"
            {...(done === null ? {} : { icon: 'check' })}
            label={done === null ? WORDS.open : WORDS.done}
            says={WORDS.openOf(name)}
            onPress={onOpen}
          />
        )}
      </Row>
      {isOpen ? <View style={{ gap: 12, paddingTop: 8 }}>{children}</View> : null}
    </Card>
  );
}

/** Why a step could not be stored. */
export function SaveFault({ error }: { error: Error | null }) {
  if (!error) return null;
  const reasons =
    error instanceof Refused
      ? (error.problem.errors?.map(({ reason }) => reason) ?? [error.message])
      : [WORDS.didNotSave];
  return (
    <Text role="alert" bold>
      {reasons.join(' ')}
    </Text>
  );
}
