/**
 * This device: whose hands it is for, what it may sound, say and shake, and what its browser does not give.
 */
import { useState, useSyncExternalStore } from 'react';
import { View } from 'react-native';
import { Switch } from '../../ui/switch';
import type { Bar } from '@even-kettle/core/contract';
import { habitOf } from '@even-kettle/core/learn';
import { inWords, showMass } from '@even-kettle/core/units';
import { useBar, useUnits } from '../../client/bar-context';
import { canSpeak, canStayAwake, canVibrate, missingHere, shake, speak } from '../../device/senses';
import { appInstall } from '../../device/install-app';
import { setDevice, useDevice, type DeviceSettings } from '../../device/settings';
import { sound, tonesState, unlockTones } from '../../device/tones';
import type { Signal } from '../../device/signals';
import { useTheme } from '../../ui/use-theme';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { HandsChoice } from '../hands-choice';
import { Select } from '../../ui/select';
import { Subheading, Text } from '../../ui/text';

const TONES: { signal: Signal; label: string }[] = [
  { signal: 'ready', label: 'Tone for “get ready”' },
  { signal: 'now', label: 'Tone for “now”' },
  { signal: 'late', label: 'Tone for “late”' },
];

export function DeviceCard({ bar }: { bar: Bar }) {
  const { link, waiting } = useBar();
  const device = useDevice();
  const missing = missingHere();
  return (
    <Card style={{ gap: 10 }}>
      <Subheading>This device</Subheading>
      <Text quiet>
        {link === 'live' ? 'In touch with the bar. ' : 'Out of touch with the bar; taps are kept here. '}
        {waiting === 0
          ? 'Every tap is stored.'
          : `${waiting} ${waiting === 1 ? 'tap waits' : 'taps wait'} to be stored.`}
      </Text>
      {bar.hands > 1 ? <HandsChoice name="Whose hands it shows" /> : null}
      {bar.people.length > 0 ? (
        <Select
          label="Whose hands they are"
          value={device.person ?? ''}
          options={[
            { value: '', label: 'nobody in particular' },
            ...bar.people.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={(person) => setDevice({ person: person === '' ? null : person })}
        />
      ) : null}
      <View>
        {TONES.map(({ signal, label }) => (
          <SettingRow
            key={signal}
            label={label}
            setting={signal}
            onTry={() => (unlockTones(), sound(signal))}
          />
        ))}
        <SettingRow
          label="A spoken cue"
          setting="voice"
          absent={canSpeak() ? null : 'this browser has no voice'}
          onTry={() => speak('Now. Cone 1: pour to 128 grams.')}
        />
        <SettingRow
          label="Vibration"
          setting="vibrate"
          absent={canVibrate() ? null : 'this device has none'}
          onTry={() => shake('now')}
        />
        <SettingRow
          label="The screen stays on while a brew runs"
          setting="awake"
          absent={canStayAwake() ? null : 'not over plain HTTP, or not in this browser'}
        />
        <SettingRow label="Stop early by what these hands overrun" setting="lead" />
        <SettingRow label="Cues come earlier for hands that come late" setting="early" />
      </View>
      <InstallRow />
      <Habits bar={bar} />
      {tonesState() === 'waiting' ? (
        <Text size="small" quiet>
          Tones begin with the first touch of a page; browsers ask for that.
        </Text>
      ) : null}
      {missing.length > 0 ? (
        <View role="note" aria-label="What this device does not give" style={{ gap: 2 }}>
          {missing.map(({ what, why }) => (
            <Text key={what} size="small">
              {what}: {why}.
            </Text>
          ))}
          <Text size="small" quiet>
            None of it is needed; the bar works on without.
          </Text>
        </View>
      ) : null}
      {Object.keys(device.cautionsRead).length > 0 ? (
        <Button
          kind="bare"
          label="Show the cautions again"
          onPress={() => setDevice({ cautionsRead: {} })}
          style={{ alignSelf: 'flex-start', paddingHorizontal: 0 }}
        />
      ) : null}
    </Card>
  );
}

/** Where the browser offers it: the app on the device's own screen. */
function InstallRow() {
  const isOffered = useSyncExternalStore(appInstall.subscribe, appInstall.isOffered, appInstall.isOffered);
  if (!isOffered) return null;
  return (
    <Row style={{ flexWrap: 'wrap' }}>
      <Text style={{ flex: 1, minWidth: 200 }}>
        Installed, it opens from this device’s own screen, without the browser’s bars, and also while the
        server is away.
      </Text>
      <Button label="Install" says="Install Even Kettle" onPress={() => void appInstall.ask()} />
    </Row>
  );
}

/** What is known of these hands, with how much stands behind it. */
function Habits({ bar }: { bar: Bar }) {
  const { state } = useBar();
  const { person } = useDevice();
  const units = useUnits();
  const brews = Object.values(state.brews);
  const known = bar.stations.map(({ id, name }) => ({ name, ...habitOf(brews, person ?? undefined, id) }));
  const { lateS = 0, steps = 0 } = known[0] ?? {};
  const leads = known.filter(({ leadG }) => leadG > 0);
  return (
    <Text size="small" quiet testID="habits">
      {steps < 4
        ? 'Too little is known of these hands yet; it is learnt from the last hour’s brews. '
        : `These hands come ${lateS === 0 ? 'in time' : `${lateS} s late`} (median of ${steps} steps). `}
      {leads
        .map(
          ({ name, leadG, pours }) =>
            `At ${name} they stop ${inWords(showMass(leadG, units, 'water'))} late (${pours} pours).`,
        )
        .join(' ')}
    </Text>
  );
}

type SwitchKey = {
  [Key in keyof DeviceSettings]: DeviceSettings[Key] extends boolean ? Key : never;
}[keyof DeviceSettings];

function SettingRow({
  label,
  setting,
  absent = null,
  onTry,
}: {
  label: string;
  setting: SwitchKey;
  absent?: string | null;
  onTry?: () => void;
}) {
  const theme = useTheme();
  const device = useDevice();
  const [tried, setTried] = useState(false);
  return (
    <Row style={{ borderTopWidth: 1, borderColor: theme.rim }}>
      <Switch
        label={label}
        on={device[setting] && absent === null}
        absent={absent}
        onChange={(on) => setDevice({ [setting]: on })}
      />
      {onTry && absent === null ? (
        <Button
          kind="bare"
          label={tried ? 'Again' : 'Try'}
          says={`Try: ${label}`}
          onPress={() => (setTried(true), onTry())}
        />
      ) : null}
    </Row>
  );
}
