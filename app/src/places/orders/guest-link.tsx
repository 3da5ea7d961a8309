/** The address by which a guest follows an order, as a picture for a phone and as a printed slip. */
import { useState } from 'react';
import { View } from 'react-native';
import { useLocalSearchParams } from 'expo-router';
import { useQuery } from '@tanstack/react-query';
import { useHere } from '../../client/bar-context';
import { Badge } from '../../ui/badge';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { QrPicture } from '../../ui/qr-picture';
import { Text } from '../../ui/text';
import { printOnly } from '../../ui/use-print-page';
import { WORDS } from '../../parts/orders/words';

/** The paper of a small printer. */
const SLIP = '72mm 110mm';

export function GuestLink({ orderId, badge }: { orderId: string; badge: number }) {
  const { guest } = useLocalSearchParams<{ guest?: string }>();
  const [open, setOpen] = useState(guest === 'code');
  const { api } = useHere();
  const link = useQuery({
    queryKey: ['cup-link', orderId],
    queryFn: () => api.cupLink(orderId),
    enabled: open,
    // An order that was taken a moment ago may still be on its way to the server.
    retry: 4,
  });
  if (!open)
    return (
      <Button label={WORDS.guestPage} onPress={() => setOpen(true)} style={{ alignSelf: 'flex-start' }} />
    );
  return (
    <Card style={{ gap: 8 }}>
      <Text>{WORDS.guestPageHint}</Text>
      {link.data ? (
        <View style={{ alignItems: 'center', gap: 6 }} testID="guest-link">
          <Badge badge={badge} size={56} />
          <QrPicture text={link.data.address} size={200} says={WORDS.guestPageCode} />
          <Text size="small" quiet>
            {link.data.address}
          </Text>
        </View>
      ) : null}
      {link.error ? <Text role="alert">{link.error.message}</Text> : null}
      <Row>
        <Button label={WORDS.printSlip} disabled={!link.data} onPress={() => printOnly('guest-link', SLIP)} />
        <Button kind="bare" label={WORDS.close} onPress={() => setOpen(false)} />
      </Row>
    </Card>
  );
}
