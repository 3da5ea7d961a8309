/**
 * The plan as open files.
 */
import { useState } from 'react';
import { useHere } from '../../client/bar-context';
import { Refused } from '../../client/request';
import { saveFile } from '../../ui/files';
import { Button } from '../../ui/button';
import { Card } from '../../ui/card';
import { Row } from '../../ui/page';
import { Subheading, Text } from '../../ui/text';

/** The bar's own planning problem and its plan, as the open files that `ek plan` and `ek check` read. */
export function PlanFilesCard() {
  const { api } = useHere();
  const [words, setWords] = useState<string | null>(null);
  const save = async (name: string, read: () => Promise<unknown>) => {
    setWords(null);
    try {
      const value = await read();
      if (value) return saveFile(name, `${JSON.stringify(value, null, 1)}\n`, 'application/json');
      return setWords('Nothing is planned just now: no cup waits and no brew runs.');
    } catch (error) {
      const detail = error instanceof Refused ? error.message : 'The server cannot be reached just now.';
      return setWords(detail);
    }
  };
  return (
    <Card>
      <Subheading>The plan as files</Subheading>
      <Row style={{ flexWrap: 'wrap' }}>
        <Button
          label="Save problem"
          says="Save the planning problem"
          onPress={() => void save('problem.json', api.planProblem)}
        />
        <Button
          label="Save plan"
          says="Save the plan"
          onPress={() => void save('plan.json', async () => (await api.plan()).plan)}
        />
      </Row>
      {words ? <Text role="alert">{words}</Text> : null}
    </Card>
  );
}
