/**
 * A share as a bar: of the most, or of the whole.
 */
import { View } from 'react-native';
import { useTheme } from '../ui/use-theme';

export function ProgressBar({ share }: { share: number }) {
  const theme = useTheme();
  return (
    <View aria-hidden style={{ height: 8, backgroundColor: theme.coolPale, borderRadius: 4 }}>
      <View
        style={{
          height: 8,
          width: `${Math.round(100 * Math.max(0, Math.min(1, share)))}%`,
          backgroundColor: theme.cool,
          borderRadius: 4,
        }}
      />
    </View>
  );
}
