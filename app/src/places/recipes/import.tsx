/**
 * Bringing recipes in: from a file, a picture of a code, or the code's text. Shows what would change, then asks.
 */
import { useState } from 'react';
import { View } from 'react-native';
import { router } from 'expo-router';
import { METHODS, everyVersion, type Fault, type Recipe } from '@even-kettle/core/recipe';
import type { Incoming } from '@even-kettle/core/formats';
import { useHere } from '../../client/bar-context';
import { schemas } from '../../client/load-schemas';
import { Refused } from '../../client/request';
import { Field } from '../../ui/field';
import { chooseFile } from '../../ui/files';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Notice } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { readQrPicture } from '../../ui/pictures';
import { Heading, Subheading, Text } from '../../ui/text';
import { ChangeList } from './changes';
import { holdsCode, readCode } from './code';
import { WORDS } from './words';

type Brought = { from: string; recipes: Recipe[] } | { from: string; faults: Fault[] };

export function ImportRecipes() {
  const { store } = useHere();
  const [brought, setBrought] = useState<Brought | null>(broughtByAddress);
  const [text, setText] = useState('');

  const takeCode = (code: string, from: string) => setBrought(broughtByCode(code, from));

  const takeFile = async () => {
    const file = await chooseFile('.json,application/json');
    if (!file) return;
    // Too large a file is not even read.
    const content =
      file.size > schemas().RECIPES_FILE_MAX * 4
        ? ' '.repeat(schemas().RECIPES_FILE_MAX + 1)
        : await file.text();
    const read = schemas().readRecipes(content);
    const faults =
      file.size > schemas().RECIPES_FILE_MAX
        ? [
            {
              field: 'file',
              reason: WORDS.fileTooLarge(Math.round(file.size / 1e6)),
            },
          ]
        : !read.ok
          ? read.faults
          : null;
    setBrought(
      faults ? { from: file.name, faults } : { from: file.name, recipes: read.ok ? read.recipes : [] },
    );
  };
  const takePicture = async () => {
    const file = await chooseFile('image/*');
    if (!file) return;
    const code = await readQrPicture(file).catch(() => null);
    if (code) takeCode(code, file.name);
    else
      setBrought({
        from: file.name,
        faults: [{ field: 'picture', reason: WORDS.noCodeFound }],
      });
  };

  return (
    <Page>
      <Row style={{ justifyContent: 'space-between' }}>
        <Heading>{WORDS.bringRecipesIn}</Heading>
        <Button kind="bare" label={WORDS.allRecipes} onPress={() => router.replace('/recipes')} />
      </Row>
      <Card>
        <Text quiet>{WORDS.nothingOverwritten}</Text>
        <Row style={{ flexWrap: 'wrap' }}>
          <Button label={WORDS.aRecipeFile} onPress={() => void takeFile()} testID="import-file" />
          <Button label={WORDS.pictureOfCode} onPress={() => void takePicture()} testID="import-picture" />
        </Row>
        <Row style={{ alignItems: 'flex-end' }}>
          <Field
            label={WORDS.orCodeAsText}
            value={text}
            onChangeText={setText}
            maxLength={9000}
            style={{ flex: 1 }}
          />
          <Button
            label={WORDS.readIt}
            disabled={text.trim() === ''}
            onPress={() => takeCode(text, WORDS.theText)}
          />
        </Row>
      </Card>
      {brought === null ? null : 'faults' in brought ? (
        <Faults from={brought.from} faults={brought.faults} />
      ) : (
        <Preview
          key={brought.from}
          from={brought.from}
          incoming={schemas().previewImport(brought.recipes, everyVersion(store.given()?.saved ?? []))}
        />
      )}
    </Page>
  );
}

function broughtByCode(code: string, from: string): Brought {
  const read = readCode(code);
  return read.ok
    ? { from, recipes: [read.recipe] }
    : { from, faults: [{ field: 'code', reason: read.reason }] };
}

/** A phone's camera that read the code opens the app at it. */
const broughtByAddress = (): Brought | null =>
  holdsCode(window.location.hash) ? broughtByCode(window.location.hash, WORDS.codeInAddress) : null;

function Faults({ from, faults }: { from: string; faults: Fault[] }) {
  return (
    <Card ruled>
      <View role="alert" style={{ gap: 4 }}>
        <Subheading>{WORDS.nothingWasTakenFrom(from.slice(0, 60))}</Subheading>
        {faults.slice(0, 12).map(({ field, reason }) => (
          <Text key={`${field} ${reason}`}>
            <Text bold>{field}</Text> {reason}
          </Text>
        ))}
        {faults.length > 12 ? <Text quiet>{WORDS.andMore(faults.length - 12)}</Text> : null}
      </View>
    </Card>
  );
}

function Preview({ from, incoming }: { from: string; incoming: Incoming[] }) {
  const { api, store } = useHere();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [said, setSaid] = useState<string[]>([]);
  const [done, setDone] = useState(false);
  const isHere = (what: Incoming['what']) => what === 'same' || what === 'earlier';
  const useful = incoming.filter(({ what }) => !isHere(what));
  const wanted = useful.filter(({ recipe }) => !left.has(recipe.id));

  const take = async () => {
    const words: string[] = [];
    for (const { recipe, what, version } of wanted) {
      try {
        const saved = await api.saveRecipe({ recipe, basedOn: what === 'new' ? null : version - 1 });
        store.tookRecipe(saved);
        words.push(WORDS.keptAsVersion(saved.name, saved.version));
      } catch (error) {
        words.push(`${recipe.name}: ${error instanceof Refused ? error.message : WORDS.notKept}`);
      }
    }
    setSaid(words);
    setDone(true);
  };

  if (done)
    return (
      <Notice
        title={WORDS.broughtIn}
        action={<Button kind="main" label={WORDS.allRecipes} onPress={() => router.replace('/recipes')} />}
      >
        {said.join('\n')}
      </Notice>
    );
  return (
    <Card>
      <Subheading>{WORDS.inItForFrom(from.slice(0, 60))}</Subheading>
      {incoming.map(({ recipe, what, version, changes }) => (
        <View key={recipe.id} style={{ gap: 4, paddingVertical: 6 }}>
          <Row style={{ justifyContent: 'space-between' }}>
            <View style={{ flex: 1 }}>
              <Text bold>{recipe.name}</Text>
              <Text size="small" quiet>
                {METHODS[recipe.method].name} ·{' '}
                {what === 'new'
                  ? WORDS.newHere
                  : what === 'same'
                    ? WORDS.sameAsHere
                    : what === 'earlier'
                      ? WORDS.anEarlierVersion(version)
                      : WORDS.wouldBeVersion(version, version - 1)}
              </Text>
            </View>
            {isHere(what) ? null : (
              <Button
                label={left.has(recipe.id) ? WORDS.leftOut : WORDS.taken}
                says={`${recipe.name}: ${left.has(recipe.id) ? WORDS.leftOutLabel : 'taken'}`}
                kind={left.has(recipe.id) ? 'plain' : 'chosen'}
                onPress={() => setLeft(toggled(left, recipe.id))}
              />
            )}
          </Row>
          <ChangeList changes={changes} />
        </View>
      ))}
      {useful.length === 0 ? (
        <Text quiet>{WORDS.allHereAlready}</Text>
      ) : (
        <Button
          kind="main"
          label={wanted.length === 1 ? WORDS.importIt : WORDS.importItForLength(wanted.length)}
          disabled={wanted.length === 0}
          onPress={() => void take()}
          testID="import-take"
        />
      )}
    </Card>
  );
}

const toggled = (set: ReadonlySet<string>, id: string): ReadonlySet<string> =>
  new Set(set.has(id) ? [...set].filter((each) => each !== id) : [...set, id]);
