/**
 * What a browser's own print would add or cut: nothing but the sheet. What has the test id `print-bar` stays on screen.
 */
import { useEffect } from 'react';

const PRINT_STYLE =
  '@page { size: A4; margin: 12mm } @media print { html, body, #root { height: auto !important; overflow: visible !important; background: #fff } [data-testid="print-bar"] { display: none !important } }';

export function usePrintPage(): void {
  useEffect(() => {
    const style = document.createElement('style');
    style.textContent = PRINT_STYLE;
    document.head.append(style);
    return () => style.remove();
  }, []);
}

/** Prints one part of a page, and nothing around it. @param size of the paper, as style sheets name it */
export function printOnly(testID: string, size = 'A4 landscape'): void {
  const part = `[data-testid="${testID}"]`;
  const style = document.createElement('style');
  style.textContent = `@page { size: ${size}; margin: 6mm } @media print { html, body, #root { height: auto !important; overflow: visible !important; background: #fff } body * { visibility: hidden } ${part}, ${part} * { visibility: visible } ${part} { position: fixed; left: 0; top: 0; width: 100% } }`;
  document.head.append(style);
  window.print();
  style.remove();
}
