/**
 * What a cup asks of whoever hands it over. An allergy stands in a dark sign of its own, and decaf in
 * a ruled one, that no glance can miss.
 */
import { memo } from 'react';
import { View } from 'react-native';
import { isPlainToSee, type CupAsk } from '@even-kettle/core/brew';
import { CONTRACT_VERSION } from '@even-kettle/core/contract/contract-version';
import { useBar } from '../client/bar-context';
import { serviceInWords, unknownInWords } from '../words/service-words';
import { Icon } from '../ui/icons';
import { Text } from '../ui/text';
import { useTheme } from '../ui/use-theme';
import { WORDS } from './words';

type WishesProps = {
  cup: CupAsk;
  inARow?: boolean;
  /** It is being handed over, to where its letter stands. */
  isServed?: boolean;
};

export const Wishes = memo(function Wishes({ cup, inARow = false, isServed = false }: WishesProps) {
  const theme = useTheme();
  const { bar } = useBar();
  const said = serviceInWords(cup);
  const unknown = useUnknown(cup);
  // Orders of before say it by their coffee alone.
  const isDecaf = cup.decaf ?? bar?.coffees.find(({ name }) => name === cup.coffee)?.decaf ?? false;
  if (!cup.allergy && !isDecaf && !said && !unknown && !cup.sample) return null;
  return (
    <View
      style={
        inARow ? { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', columnGap: 10 } : { gap: 2 }
      }
    >
      {cup.sample ? (
        <Text bold testID="sample">
          {isPlainToSee(cup.sample) && !isServed ? WORDS.blindSample : WORDS.sample(cup.sample.letter)}
        </Text>
      ) : null}
      {cup.allergy ? <Sign text={WORDS.allergy(cup.allergy)} testID="allergy" /> : null}
      {isDecaf ? (
        <View
          testID="decaf"
          style={{
            alignSelf: 'flex-start',
            borderWidth: 2,
            borderColor: theme.ink,
            borderRadius: 14,
            paddingHorizontal: 10,
          }}
        >
          <Text bold size="small">
            {WORDS.decaf}
          </Text>
        </View>
      ) : null}
      {said ? (
        <Text size="small" bold testID="wishes">
          {said}
        </Text>
      ) : null}
      {unknown ? <Sign text={unknown} testID="unknown-wishes" /> : null}
    </View>
  );
});

/** What a newer server says of a cup or its order that this page does not know. */
function useUnknown(cup: CupAsk): string | null {
  const { state, contract } = useBar();
  if (contract <= CONTRACT_VERSION) return null;
  const order = Object.values(state.orders).find(({ cups }) => cups.some(({ cupId }) => cupId === cup.cupId));
  return unknownInWords(cup, order);
}

/** Where there is no room for more: that there is an allergy, or something that this version does not know. */
export const AllergySign = memo(function AllergySign({ cup }: { cup: CupAsk }) {
  const theme = useTheme();
  const unknown = useUnknown(cup);
  if (!cup.allergy && !unknown) return null;
  return (
    <View role="img" aria-label={cup.allergy ? WORDS.allergy(cup.allergy) : unknown!} testID="allergy-sign">
      <Icon name="allergy" color={theme.ink} size={18} />
    </View>
  );
});

/** A dark sign that no glance can miss. */
function Sign({ text, testID }: { text: string; testID: string }) {
  const theme = useTheme();
  return (
    <View
      role="note"
      testID={testID}
      style={{
        alignSelf: 'flex-start',
        maxWidth: '100%',
        flexDirection: 'row',
        alignItems: 'center',
        gap: 8,
        backgroundColor: theme.ink,
        borderTopRightRadius: 14,
        borderBottomRightRadius: 14,
        paddingHorizontal: 10,
        paddingVertical: 3,
        marginVertical: 2,
      }}
    >
      <Icon name="allergy" color={theme.surface} size={20} />
      <Text bold color={theme.surface} style={{ flexShrink: 1 }}>
        {text}
      </Text>
    </View>
  );
}
