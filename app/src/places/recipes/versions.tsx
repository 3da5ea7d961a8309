/**
 * A recipe's versions: what changed from one to the next, and any of them brought back as a new one.
 */
import { useState } from 'react';
import { router } from 'expo-router';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { changesBetween, type Recipe } from '@even-kettle/core/recipe';
import { Refused } from '../../client/request';
import { useHere } from '../../client/bar-context';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Choice } from '../../ui/choice';
import { Loading, Notice } from '../../ui/notice';
import { Page, Row } from '../../ui/page';
import { Heading, Subheading, Text } from '../../ui/text';
import { ChangeList } from './changes';
import { WORDS } from './words';

export function RecipeVersions({ recipe }: { recipe: Recipe }) {
  const { api } = useHere();
  const versions = useQuery({
    queryKey: ['versions', recipe.id, recipe.version],
    queryFn: () => api.versions(recipe.id),
    placeholderData: keepPreviousData,
  });
  return (
    <Page>
      <Row style={{ justifyContent: 'space-between' }}>
        <Heading style={{ flex: 1 }}>{WORDS.versionsOf(recipe.name)}</Heading>
        <Button
          kind="bare"
          label={WORDS.back}
          onPress={() => router.replace({ pathname: '/recipes/[id]', params: { id: recipe.id } })}
        />
      </Row>
      {versions.isPending ? (
        <Loading what={WORDS.theVersions} />
      ) : versions.isError ? (
        <Notice
          ruled
          title={WORDS.versionsNotLoaded}
          action={<Button label={WORDS.tryAgain} onPress={() => void versions.refetch()} />}
        >
          {WORDS.serverUnreachable}
        </Notice>
      ) : (
        <Compare versions={versions.data.recipes} />
      )}
    </Page>
  );
}

function Compare({ versions }: { versions: readonly Recipe[] }) {
  const { api, store } = useHere();
  const latest = versions.at(-1)!;
  const [from, setFrom] = useState(String(versions.at(-2)?.version ?? latest.version));
  const [to, setTo] = useState(String(latest.version));
  const [said, setSaid] = useState('');
  const find = (version: string) => versions.find((recipe) => String(recipe.version) === version) ?? latest;
  const options = versions.map(({ version }) => ({ value: String(version), label: String(version) }));
  if (versions.length === 1)
    return (
      <Notice
        title={WORDS.onlyOneVersion}
        action={
          <Button
            label={WORDS.changeIt}
            onPress={() => router.push({ pathname: '/recipes/[id]/edit', params: { id: latest.id } })}
          />
        }
      >
        {WORDS.editHint}
      </Notice>
    );
  const restore = async () => {
    try {
      const saved = await api.saveRecipe({ recipe: find(from), basedOn: latest.version });
      store.tookRecipe(saved);
      setSaid(`Version ${from} is back, as version ${saved.version}.`);
    } catch (error) {
      setSaid(error instanceof Refused ? error.message : WORDS.notStored);
    }
  };
  const changes = changesBetween(find(from), find(to));
  return (
    <Card>
      <Text quiet>{WORDS.fromVersion}</Text>
      <Choice name={WORDS.fromVersion} value={from} onChange={setFrom} options={options} />
      <Text quiet>{WORDS.toVersion}</Text>
      <Choice name={WORDS.toVersionLabel} value={to} onChange={setTo} options={options} />
      <Subheading>{changes.length === 0 ? WORDS.theSame : WORDS.changes(changes.length)}</Subheading>
      <ChangeList changes={changes} />
      {from === String(latest.version) ? null : (
        <Button
          kind="main"
          label={WORDS.bringVersionBack(from)}
          onPress={() => void restore()}
          testID="restore"
        />
      )}
      {said ? (
        <Text role="status" bold>
          {said}
        </Text>
      ) : null}
    </Card>
  );
}
