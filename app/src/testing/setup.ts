/** What the app's tests stand on: animations run without a device's own driver, which has no views to find here. */
jest.mock('react-native/src/private/animated/NativeAnimatedHelper', () => {
  const actual = jest.requireActual<{ default: object }>(
    'react-native/src/private/animated/NativeAnimatedHelper',
  );
  return { __esModule: true, default: { ...actual.default, shouldUseNativeDriver: () => false } };
});
