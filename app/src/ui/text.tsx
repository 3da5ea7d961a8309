/**
 * The sizes of type: a figure to read across the bar, a verb, body, small. B612's own figures are tabular.
 */
import type { Ref } from 'react';
import { Text as NativeText, type TextProps, type TextStyle } from 'react-native';
import { useTheme } from './use-theme';
import { FACE } from './theme';

type Size = 'figure' | 'second' | 'unit' | 'clock' | 'verb' | 'title' | 'body' | 'small';

const SIZES: Record<Size, TextStyle> = {
  figure: { fontSize: 92, lineHeight: 94, fontFamily: FACE.bold },
  second: { fontSize: 44, lineHeight: 46, fontFamily: FACE.bold },
  unit: { fontSize: 30, lineHeight: 40, fontFamily: FACE.bold },
  clock: { fontSize: 19, lineHeight: 24, fontFamily: FACE.bold },
  verb: { fontSize: 22, lineHeight: 28, fontFamily: FACE.bold },
  title: { fontSize: 18, lineHeight: 24, fontFamily: FACE.bold },
  body: { fontSize: 15, lineHeight: 21, fontFamily: FACE.regular },
  small: { fontSize: 13, lineHeight: 18, fontFamily: FACE.regular },
};

/** On a large screen that is read across a counter every size is larger, the figure most. */
const ACROSS: Record<Size, TextStyle> = {
  figure: { fontSize: 176, lineHeight: 180, fontFamily: FACE.bold },
  second: { fontSize: 80, lineHeight: 84, fontFamily: FACE.bold },
  unit: { fontSize: 52, lineHeight: 66, fontFamily: FACE.bold },
  clock: { fontSize: 26, lineHeight: 32, fontFamily: FACE.bold },
  verb: { fontSize: 36, lineHeight: 44, fontFamily: FACE.bold },
  title: { fontSize: 24, lineHeight: 31, fontFamily: FACE.bold },
  body: { fontSize: 19, lineHeight: 26, fontFamily: FACE.regular },
  small: { fontSize: 16, lineHeight: 22, fontFamily: FACE.regular },
};

type Props = TextProps & {
  size?: Size;
  bold?: boolean;
  quiet?: boolean;
  color?: string;
  ref?: Ref<NativeText>;
};

export function Text({ size = 'body', bold, quiet, color, style, ...rest }: Props) {
  const theme = useTheme();
  return (
    <NativeText
      {...rest}
      style={[
        (theme.isAcross ? ACROSS : SIZES)[size],
        bold && { fontFamily: FACE.bold },
        { color: color ?? (quiet ? theme.ink2 : theme.ink), fontVariant: ['tabular-nums'] },
        style,
      ]}
    />
  );
}

/** A page's heading; one a page, for those who read by ear. */
export const Heading = (props: Props) => <Text size="title" role="heading" aria-level={1} {...props} />;
export const Subheading = (props: Props) => (
  <Text size="body" bold role="heading" aria-level={2} {...props} />
);
