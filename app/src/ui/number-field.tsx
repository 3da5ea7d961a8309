/**
 * A number that must be there: what is no number yet, and nothing at all, is told as NaN.
 */
import { OptionalNumber, type OptionalNumberProps } from './optional-number';

export type NumberFieldProps = Omit<OptionalNumberProps, 'value' | 'onChange'> & {
  value: number;
  /** NaN while what is typed is no number: the recipe's own check then says so. */
  onChange: (value: number) => void;
};

export const NumberField = ({ onChange, ...rest }: NumberFieldProps) => (
  <OptionalNumber {...rest} onChange={(value) => onChange(value ?? NaN)} />
);
