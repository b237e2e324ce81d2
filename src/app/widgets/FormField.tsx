import type { ReactNode } from 'react';
import { Controller, type Control, type FieldPath, type FieldValues } from 'react-hook-form';
import { Field, FormProblem, Input, Label } from './controls';

interface Props<T extends FieldValues, Out> {
  readonly control: Control<T, unknown, Out>;
  readonly name: FieldPath<T>;
  readonly label: ReactNode;
  readonly autoFocus?: boolean;
  readonly maxLength?: number;
}

/** A typed field of a dialog's form. What is wrong with it stands under it, when the form was sent; what was typed stays. */
export function FormField<T extends FieldValues, Out>({
  control,
  name,
  label,
  autoFocus = false,
  maxLength,
}: Props<T, Out>) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field: { ref, value, onChange, onBlur }, fieldState: { error } }) => (
        <Field
          name={name}
          value={value}
          onChange={onChange}
          onBlur={onBlur}
          isInvalid={error !== undefined}
          autoFocus={autoFocus}
          {...(maxLength === undefined ? {} : { maxLength })}
        >
          <Label>{label}</Label>
          <Input ref={ref} />
          {error?.message !== undefined && <FormProblem>{error.message}</FormProblem>}
        </Field>
      )}
    />
  );
}
