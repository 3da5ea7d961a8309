import { router } from 'expo-router';
import { WORDS } from '../places/words';
import { Button } from '../ui/button';
import { Notice } from '../ui/notice';
import { Page } from '../ui/page';

export default function NotFound() {
  return (
    <Page>
      <Notice
        ruled
        title={WORDS.noSuchPlace}
        action={<Button label={WORDS.toTheBar} onPress={() => router.replace('/')} />}
      >
        {WORDS.noSuchPage}
      </Notice>
    </Page>
  );
}
