/**
 * The simulated order feed: whether it runs, and when its next boat lands.
 */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useHere } from './bar-context';

/** It is asked after so often, real milliseconds. */
const AGAIN_MS = 15_000;
const KEY = ['feed'];

export function useFeed() {
  const { api } = useHere();
  const cache = useQueryClient();
  const { data } = useQuery({ queryKey: KEY, queryFn: () => api.feed(), refetchInterval: AGAIN_MS });
  const run = useMutation({
    mutationFn: (running: boolean) => api.runFeed(running),
    onSuccess: (feed) => cache.setQueryData(KEY, feed),
  });
  return { feed: data ?? null, run };
}
