/**
 * A share as a bar: of the most, or of the whole.
 */
import { View } from 'react-native';
import { useLook } from '../../ui/look';

export function Bar({ share }: { share: number }) {
  const look = useLook();
  return (
    <View aria-hidden style={{ height: 8, backgroundColor: look.coolPale, borderRadius: 4 }}>
      <View
        style={{
          height: 8,
          width: `${Math.round(100 * Math.max(0, Math.min(1, share)))}%`,
          backgroundColor: look.cool,
          borderRadius: 4,
        }}
      />
    </View>
  );
}
