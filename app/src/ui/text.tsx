/**
 * The sizes of type: a figure to read across the bar, a verb, body, small. B612's own figures are tabular.
 */
import { memo, type Ref } from 'react';
import { Text as NativeText, type TextProps, type TextStyle } from 'react-native';
import { isAlike } from './alike';
import { useTheme } from './use-theme';
import { FACE } from './theme';

type Size = 'figure' | 'second' | 'unit' | 'clock' | 'verb' | 'title' | 'body' | 'small';

/** Pixels of type and line as it is read near at hand; and on a large screen, across a counter: larger, the figure most. */
const SIZES: Record<Size, { near: [number, number]; across: [number, number]; face: string }> = {
  figure: { near: [92, 94], across: [176, 180], face: FACE.bold },
  second: { near: [44, 46], across: [80, 84], face: FACE.bold },
  unit: { near: [30, 40], across: [52, 66], face: FACE.bold },
  clock: { near: [19, 24], across: [26, 32], face: FACE.bold },
  verb: { near: [22, 28], across: [36, 44], face: FACE.bold },
  title: { near: [18, 24], across: [24, 31], face: FACE.bold },
  body: { near: [15, 21], across: [19, 26], face: FACE.regular },
  small: { near: [13, 18], across: [16, 22], face: FACE.regular },
};
const stylesFor = (from: 'near' | 'across') =>
  Object.fromEntries(
    Object.entries(SIZES).map(
      ([
        size,
        {
          [from]: [fontSize, lineHeight],
          face,
        },
      ]) => [size, { fontSize, lineHeight, fontFamily: face }],
    ),
  ) as Record<Size, TextStyle>;
const NEAR = stylesFor('near');
const ACROSS = stylesFor('across');

type Props = TextProps & {
  size?: Size;
  bold?: boolean;
  quiet?: boolean;
  color?: string;
  ref?: Ref<NativeText>;
};

/** A page of clocks draws itself several times a second: a text that says what it said is left as it is. */
const LEVELS = 3;

export const Text = memo(
  function Text({ size = 'body', bold, quiet, color, style, ...rest }: Props) {
    const theme = useTheme();
    return (
      <NativeText
        {...rest}
        style={[
          (theme.isAcross ? ACROSS : NEAR)[size],
          bold && { fontFamily: FACE.bold },
          { color: color ?? (quiet ? theme.ink2 : theme.ink), fontVariant: ['tabular-nums'] },
          style,
        ]}
      />
    );
  },
  (before, now) => isAlike(before, now, LEVELS),
);

/** A page's heading; one a page, for those who read by ear. */
export const Heading = (props: Props) => <Text size="title" role="heading" aria-level={1} {...props} />;
export const Subheading = (props: Props) => (
  <Text size="body" bold role="heading" aria-level={2} {...props} />
);
