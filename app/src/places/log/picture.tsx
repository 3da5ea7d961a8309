/**
 * A chart with the table behind it; it can be saved as SVG or as PNG.
 */
import { useRef, useState, type ReactNode } from 'react';
import { View } from 'react-native';
import { saveBlob } from '../../ui/files';
import { Button } from '../../ui/button';
import { Row } from '../../ui/page';
import { useTheme } from '../../ui/use-theme';
import { WORDS } from './words';

/** Twice the size on the screen, so that it can be printed. */
const SCALE = 2;

type Props = {
  name: string;
  /** Address of what it draws, as CSV. */
  csv?: string | undefined;
  /** What it draws, as a table. */
  table: ReactNode;
  children: ReactNode;
};

export function Picture({ name, csv, table, children }: Props) {
  const [open, setOpen] = useState(false);
  const around = useRef<View>(null);
  const theme = useTheme();
  const svgText = () => {
    const svg = (around.current as unknown as HTMLElement | null)?.querySelector('svg');
    if (!svg) return null;
    const copy = svg.cloneNode(true) as SVGElement;
    copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
    copy.setAttribute('style', `background:${theme.surface}`);
    const { width, height } = svg.getBoundingClientRect();
    return { text: new XMLSerializer().serializeToString(copy), width, height };
  };
  const saveSvg = () => {
    const svg = svgText();
    if (svg) saveBlob(`${name}.svg`, new Blob([svg.text], { type: 'image/svg+xml' }));
  };
  const savePng = async () => {
    const svg = svgText();
    if (!svg) return;
    const picture = new Image();
    picture.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg.text)}`;
    await picture.decode();
    const canvas = document.createElement('canvas');
    Object.assign(canvas, { width: svg.width * SCALE, height: svg.height * SCALE });
    const pen = canvas.getContext('2d')!;
    pen.fillStyle = theme.surface;
    pen.fillRect(0, 0, canvas.width, canvas.height);
    pen.drawImage(picture, 0, 0, canvas.width, canvas.height);
    canvas.toBlob((blob) => blob && saveBlob(`${name}.png`, blob), 'image/png');
  };
  return (
    <View>
      <View ref={around}>{children}</View>
      <Row style={{ justifyContent: 'flex-end', gap: 0 }}>
        <Button
          kind={open ? 'chosen' : 'bare'}
          label={WORDS.table}
          says={open ? WORDS.hideTheTable : WORDS.showAsATable}
          onPress={() => setOpen(!open)}
        />
        {csv ? (
          <Button
            kind="bare"
            label={WORDS.csv}
            says={WORDS.saveDrawnCsv}
            onPress={() => window.location.assign(csv)}
          />
        ) : null}
        <Button kind="bare" label={WORDS.svg} says={WORDS.saveChartSvg} onPress={saveSvg} />
        <Button kind="bare" label={WORDS.png} says={WORDS.saveChartPng} onPress={() => void savePng()} />
      </Row>
      {open ? table : null}
    </View>
  );
}
