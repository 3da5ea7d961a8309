/**
 * What Practice keeps with the server, and how something is kept there.
 */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { PracticeItem } from '@even-kettle/core/contract';
import { useHere } from '../../client/bar-context';

const KEY = ['practice'];

export function usePractice() {
  const { api } = useHere();
  const client = useQueryClient();
  const { data, isPending, isError } = useQuery({ queryKey: KEY, queryFn: api.practice });
  const anew = () => client.invalidateQueries({ queryKey: KEY });
  return {
    items: data ?? [],
    isPending,
    isAway: isError,
    keep: async (item: PracticeItem) => {
      await api.keepPractice(item);
      await anew();
    },
    remove: async (id: string) => {
      await api.removePractice(id);
      await anew();
    },
  };
}
