import { router } from 'expo-router';
import { Notice, Page, Tap } from '../ui/parts';

export default function NotFound() {
  return (
    <Page>
      <Notice
        ruled
        title="No such place"
        action={<Tap label="To the bar" onPress={() => router.replace('/')} />}
      >
        Nothing of this bar is at this address.
      </Notice>
    </Page>
  );
}
