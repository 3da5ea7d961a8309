import { router } from 'expo-router';
import { Button } from '../ui/button';
import { Notice } from '../ui/notice';
import { Page } from '../ui/page';

export default function NotFound() {
  return (
    <Page>
      <Notice
        ruled
        title="No such place"
        action={<Button label="To the bar" onPress={() => router.replace('/')} />}
      >
        Nothing of this bar is at this address.
      </Notice>
    </Page>
  );
}
