/**
 * States for those who read by ear. Paper says them as `accessibilityState` and `accessibilityValue`, which React Native's
 * web no longer knows; here they become what a browser knows, before its own module makes the element's properties.
 */
import createDOMProps from 'react-native-web/dist/modules/createDOMProps';

/** Roles that are selected; elsewhere the word means nothing to a browser. */
const SELECTED = new Set(['tab', 'option', 'row']);

function ariaOf({ accessibilityState: state, accessibilityValue: value, role, accessibilityRole }) {
  const is = role ?? accessibilityRole;
  const aria = {};
  if (state) {
    if (state.disabled !== undefined) aria['aria-disabled'] = state.disabled;
    if (state.expanded !== undefined) aria['aria-expanded'] = state.expanded;
    if (state.busy !== undefined) aria['aria-busy'] = state.busy;
    if (state.checked !== undefined) aria[is === 'button' ? 'aria-pressed' : 'aria-checked'] = state.checked;
    if (state.selected !== undefined && SELECTED.has(is)) aria['aria-selected'] = state.selected;
  }
  if (value) {
    if (value.min !== undefined) aria['aria-valuemin'] = value.min;
    if (value.max !== undefined) aria['aria-valuemax'] = value.max;
    if (value.now !== undefined) aria['aria-valuenow'] = value.now;
    if (value.text !== undefined) aria['aria-valuetext'] = value.text;
  }
  return aria;
}

export default function createDOMPropsWithStates(elementType, props, options) {
  if (!props || (!props.accessibilityState && !props.accessibilityValue))
    return createDOMProps(elementType, props, options);
  const { accessibilityState: _state, accessibilityValue: _value, ...rest } = props;
  return createDOMProps(elementType, { ...ariaOf(props), ...rest }, options);
}
