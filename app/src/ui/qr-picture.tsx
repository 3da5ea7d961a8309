/** A text as a picture that a camera reads: dark on light in every look, as cameras want it. */
import { View } from 'react-native';
import Svg, { Path, Rect } from 'react-native-svg';
import { create } from 'qrcode';
import { PAPER } from './theme';

type Props = { text: string; size: number; says: string; testID?: string };

export function QrPicture({ text, size, says, testID }: Props) {
  const { modules } = create(text, { errorCorrectionLevel: 'L' });
  const margin = 3;
  const side = modules.size + 2 * margin;
  const dark = Array.from(modules.data, (on, index) =>
    on ? `M${(index % modules.size) + margin} ${Math.floor(index / modules.size) + margin}h1v1h-1z` : '',
  ).join('');
  return (
    <View role="img" aria-label={says} testID={testID}>
      <Svg width={size} height={size} viewBox={`0 0 ${side} ${side}`}>
        <Rect width={side} height={side} fill={PAPER.bg} />
        <Path d={dark} fill={PAPER.ink} />
      </Svg>
    </View>
  );
}
