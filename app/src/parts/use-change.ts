/**
 * Changing the bar's settings from the Bench.
 */
import { useEffect } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { standardSchemaResolver } from '@hookform/resolvers/standard-schema';
import { useMutation } from '@tanstack/react-query';
import type { BarChange } from '@even-kettle/core/contract';
import { useHere } from '../client/bar-context';
import { schemas } from '../client/load-schemas';
import { Refused } from '../client/request';
import { useDraft } from '../ui/use-draft';
import { faultsOf, type FormFault } from '../ui/use-faults';

/** A change that is made at once, with a tap. */
export function useChange() {
  const { api, store } = useHere();
  return useMutation({
    mutationFn: (change: BarChange) => api.changeBar(change, store.view().bar!),
    onSuccess: store.tookBar,
  });
}

export type ChangeForm = {
  /** The settings as they are typed. */
  values: BarChange;
  set: (part: BarChange) => void;
  changed: boolean;
  /** What is wrong, by field; as the contract's schema says while one types, and as the server says when it is saved. */
  faults: readonly FormFault[];
  wrong: (field: string) => boolean;
  save: () => void;
  cancel: () => void;
  saving: boolean;
  /** Why it was not stored, where that is no field's fault. */
  failure: Error | null;
};

/**
 * Settings that are changed together and stored with Save. What is typed is judged by the schema that the server has, and is
 * kept while the person is away from the page.
 * @param name under which the draft is kept
 * @param stored the settings as the bar has them
 * @param isDraft whether what was kept is a draft of these settings
 */
export function useChangeForm(
  name: string,
  stored: BarChange,
  isDraft: (kept: unknown) => kept is BarChange,
  onSaved?: () => void,
): ChangeForm {
  const change = useChange();
  const [draft, keepDraft, forgetDraft] = useDraft<BarChange | null>(
    name,
    () => null,
    (kept): kept is BarChange | null => kept === null || isDraft(kept),
  );
  const { control, formState, handleSubmit, reset, trigger } = useForm<BarChange>({
    defaultValues: { ...stored, ...draft },
    resolver: standardSchemaResolver(schemas().barChange),
  });
  const values = useWatch({ control }) as BarChange;
  const keys = Object.keys(stored) as (keyof BarChange)[];

  const changed = draft !== null;
  // Somebody else may change the bar while nothing is typed here.
  const storedText = JSON.stringify(stored);
  useEffect(() => {
    if (!changed) reset(JSON.parse(storedText) as BarChange);
    // A draft that was kept says at once what is wrong with it.
    else void trigger();
  }, [changed, storedText, reset, trigger]);

  const told = change.error instanceof Refused ? (change.error.problem.errors ?? []) : [];
  const faults = [...faultsOf(formState.errors), ...told.map(({ field, reason }) => ({ field, reason }))];
  const done = () => (keepDraft(null), forgetDraft());
  return {
    values,
    set: (part) => {
      change.reset();
      keepDraft({ ...values, ...part });
      reset({ ...values, ...part }, { keepDefaultValues: true });
      void trigger();
    },
    changed,
    faults,
    wrong: (field) => faults.some((fault) => fault.field === field || fault.field.startsWith(`${field}.`)),
    save: () =>
      void handleSubmit((typed) => {
        // Only what differs, so that what somebody else has changed meanwhile stays.
        const differs = keys.filter((key) => JSON.stringify(typed[key]) !== JSON.stringify(stored[key]));
        if (differs.length === 0) return done();
        change.mutate(Object.fromEntries(differs.map((key) => [key, typed[key]])) as BarChange, {
          onSuccess: () => (done(), onSaved?.()),
        });
      })(),
    cancel: () => (change.reset(), done()),
    saving: change.isPending,
    failure: change.error,
  };
}
