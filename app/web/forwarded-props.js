/** What a view hands on to its element: with Paper's states, which `create-dom-props.js` puts into a browser's words. */
import { accessibilityProps as known } from 'react-native-web/dist/modules/forwardedProps';

export * from 'react-native-web/dist/modules/forwardedProps';
export const accessibilityProps = { ...known, accessibilityState: true, accessibilityValue: true };
