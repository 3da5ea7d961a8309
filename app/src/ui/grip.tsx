/** Three lines to take hold of: what can be dragged, or moved with the arrow keys. */
import { View } from 'react-native';
import { useLook } from './look';

export function Grip() {
  const look = useLook();
  return (
    <View style={{ gap: 4 }} aria-hidden>
      {[0, 1, 2].map((line) => (
        <View key={line} style={{ width: 18, height: 2, backgroundColor: look.ink2 }} />
      ))}
    </View>
  );
}
