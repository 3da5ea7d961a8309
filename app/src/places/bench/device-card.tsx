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
import { Choice } from '../../ui/choice';
import { Row } from '../../ui/page';
import { HandsChoice } from '../hands-choice';
import { Select } from '../../ui/select';
import { Subheading, Text } from '../../ui/text';
import { WORDS } from './words';

const TONES: { signal: Signal; label: string }[] = [
  { signal: 'ready', label: WORDS.toneForGetReady },
  { signal: 'now', label: WORDS.toneForNow },
  { signal: 'late', label: WORDS.toneForLate },
];

export function DeviceCard({ bar }: { bar: Bar }) {
  const { link, waiting } = useBar();
  const device = useDevice();
  const missing = missingHere();
  return (
    <Card style={{ gap: 10 }}>
      <Subheading>{WORDS.thisDevice}</Subheading>
      <Text quiet>
        {link === 'live' ? WORDS.connectedToBar : WORDS.notConnectedToBar}
        {waiting === 0 ? WORDS.everyTapIsStored : WORDS.tapsWaiting(waiting)}
      </Text>
      {bar.hands > 1 ? <HandsChoice name="Whose hands it shows" /> : null}
      {bar.people.length > 0 ? (
        <Select
          label={WORDS.whoseHandsTheyAre}
          value={device.person ?? ''}
          options={[
            { value: '', label: WORDS.nobodyInParticular },
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
          label={WORDS.aSpokenCue}
          setting="voice"
          absent={canSpeak() ? null : WORDS.noVoice}
          onTry={() => speak(WORDS.sampleCue)}
        />
        <SettingRow
          label={WORDS.tonesCount}
          setting="countTones"
          onTry={() => (unlockTones(), sound('stop'))}
        />
        <SettingRow
          label={WORDS.voiceCounts}
          setting="countVoice"
          absent={canSpeak() ? null : WORDS.noVoice}
          onTry={() => speak(WORDS.twentyTenStop)}
        />
        <SettingRow
          label={WORDS.vibration}
          setting="vibrate"
          absent={canVibrate() ? null : WORDS.thisDeviceHasNone}
          onTry={() => shake('now')}
        />
        <SettingRow
          label={WORDS.screenStaysOn}
          setting="awake"
          absent={canStayAwake() ? null : WORDS.notOverPlainHttp}
        />
        <SettingRow label={WORDS.stopEarly} setting="lead" />
        <SettingRow label={WORDS.earlierCues} setting="early" />
        <SettingRow label={WORDS.iAmLearning} setting="learning" />
        <SettingRow label={WORDS.guestCode} setting="guestCode" />
      </View>
      <Choice
        name={WORDS.theHandThatPours}
        value={device.pouringHand}
        onChange={(pouringHand) => setDevice({ pouringHand })}
        options={[
          { value: 'right', label: WORDS.right },
          { value: 'left', label: WORDS.left, hint: WORDS.pathsAreMirrored },
        ]}
      />
      <InstallRow />
      <Habits bar={bar} />
      {tonesState() === 'waiting' ? (
        <Text size="small" quiet>
          {WORDS.tonesHint}
        </Text>
      ) : null}
      {missing.length > 0 ? (
        <View role="note" aria-label={WORDS.missingOnDevice} style={{ gap: 2 }}>
          {missing.map(({ what, why }) => (
            <Text key={what} size="small">
              {what}: {why}.
            </Text>
          ))}
          <Text size="small" quiet>
            {WORDS.optionalHint}
          </Text>
        </View>
      ) : null}
      {Object.keys(device.cautionsRead).length > 0 ? (
        <Button
          kind="bare"
          label={WORDS.showTheCautionsAgain}
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
      <Text style={{ flex: 1, minWidth: 200 }}>{WORDS.installHint}</Text>
      <Button label={WORDS.install} says={WORDS.installEvenKettle} onPress={() => void appInstall.ask()} />
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
        ? WORDS.handsUnknown
        : WORDS.handsComeBy(lateS === 0 ? WORDS.inTime : WORDS.sLate(lateS), steps)}
      {leads
        .map(({ name, leadG, pours }) =>
          WORDS.stopsLate(name, inWords(showMass(leadG, units, 'water')), pours),
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
          label={tried ? WORDS.again : WORDS.tryIt}
          says={WORDS.tryItForLabel(label)}
          onPress={() => (setTried(true), onTry())}
        />
      ) : null}
    </Row>
  );
}
