/** Saves a recipe as it was checked, and goes to it; a refusal is said, and what was typed stays. */
import { useState } from 'react';
import { router } from 'expo-router';
import type { Recipe } from '@even-kettle/core/recipe';
import { useHere } from '../../client/bar-context';
import { Refused } from '../../client/request';
import { WORDS } from './words';

export function useSaveRecipe(forgetDraft: () => void) {
  const { api, store } = useHere();
  const [refused, setRefused] = useState('');
  const [saving, setSaving] = useState(false);
  /** @param basedOn the version that was opened, or null for a recipe that is new */
  const save = async (recipe: Recipe, basedOn: number | null) => {
    if (saving) return;
    setSaving(true);
    try {
      const saved = await api.saveRecipe({ recipe, basedOn });
      store.tookRecipe(saved);
      forgetDraft();
      router.replace({ pathname: '/recipes/[id]', params: { id: saved.id } });
    } catch (error) {
      setRefused(error instanceof Refused ? error.message : WORDS.draftNotStored);
      setSaving(false);
    }
  };
  return { save, saving, refused };
}
