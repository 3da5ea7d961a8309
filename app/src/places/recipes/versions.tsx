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
        <Heading style={{ flex: 1 }}>Versions of {recipe.name}</Heading>
        <Button
          kind="bare"
          label="Back"
          onPress={() => router.replace({ pathname: '/recipes/[id]', params: { id: recipe.id } })}
        />
      </Row>
      {versions.isPending ? (
        <Loading what="the versions" />
      ) : versions.isError ? (
        <Notice
          ruled
          title="The versions could not load"
          action={<Button label="Try again" onPress={() => void versions.refetch()} />}
        >
          The server could not be asked for them just now.
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
        title="Only one version so far"
        action={
          <Button
            label="Change it"
            onPress={() => router.push({ pathname: '/recipes/[id]/edit', params: { id: latest.id } })}
          />
        }
      >
        Change the recipe and save it; brews that were begun with this one keep it.
      </Notice>
    );
  const restore = async () => {
    try {
      const saved = await api.saveRecipe({ recipe: find(from), basedOn: latest.version });
      store.tookRecipe(saved);
      setSaid(`Version ${from} is back, as version ${saved.version}.`);
    } catch (error) {
      setSaid(
        error instanceof Refused ? error.message : 'Not stored: the server cannot be reached just now.',
      );
    }
  };
  const changes = changesBetween(find(from), find(to));
  return (
    <Card>
      <Text quiet>From version</Text>
      <Choice name="From version" value={from} onChange={setFrom} options={options} />
      <Text quiet>to version</Text>
      <Choice name="To version" value={to} onChange={setTo} options={options} />
      <Subheading>{changes.length === 0 ? 'The same' : `${changes.length} changes`}</Subheading>
      <ChangeList changes={changes} />
      {from === String(latest.version) ? null : (
        <Button
          kind="main"
          label={`Bring version ${from} back`}
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
