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
import { WORDS } from './words';

/** The bar's own planning problem and its plan, as the open files that `ek plan` and `ek check` read. */
export function PlanFilesCard() {
  const { api } = useHere();
  const [words, setWords] = useState<string | null>(null);
  const save = async (name: string, read: () => Promise<unknown>) => {
    setWords(null);
    try {
      const value = await read();
      if (value) return saveFile(name, `${JSON.stringify(value, null, 1)}\n`, 'application/json');
      return setWords(WORDS.nothingPlanned);
    } catch (error) {
      const detail = error instanceof Refused ? error.message : WORDS.serverUnreachable;
      return setWords(detail);
    }
  };
  return (
    <Card>
      <Subheading>{WORDS.thePlanAsFiles}</Subheading>
      <Row style={{ flexWrap: 'wrap' }}>
        <Button
          label={WORDS.saveProblem}
          says={WORDS.saveThePlanningProblem}
          onPress={() => void save('problem.json', api.planProblem)}
        />
        <Button
          label={WORDS.savePlan}
          says={WORDS.saveThePlan}
          onPress={() => void save('plan.json', async () => (await api.plan()).plan)}
        />
      </Row>
      {words ? <Text role="alert">{words}</Text> : null}
    </Card>
  );
}
