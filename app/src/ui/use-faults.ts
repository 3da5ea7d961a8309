/**
 * What is wrong with a form, as a list of fields and sentences. React Hook Form keeps it as a tree in the form's own shape.
 */
import type { FieldErrors, FieldValues } from 'react-hook-form';

export type FormFault = { field: string; reason: string };

/** The faults of a form in the order of its fields; a field is a path: `kettles.0.sizeMl`. */
export function faultsOf<Values extends FieldValues>(errors: FieldErrors<Values>): FormFault[] {
  return faultsIn(errors, '');
}

function faultsIn(node: unknown, path: string): FormFault[] {
  if (typeof node !== 'object' || node === null) return [];
  const { message } = node as { message?: unknown };
  if (typeof message === 'string') return [{ field: path, reason: message }];
  return Object.entries(node).flatMap(([key, value]) =>
    key === 'ref' ? [] : faultsIn(value, path === '' ? key : `${path}.${key}`),
  );
}
