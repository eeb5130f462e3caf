'use client';

import { type ReactNode, createContext, useContext, useId } from 'react';
import { flushSync } from 'react-dom';
import {
  Controller,
  type DefaultValues,
  type FieldValues,
  FormProvider,
  type Path,
  type UseFormReturn,
  useForm,
  useFormContext,
} from 'react-hook-form';
import { Refusal } from '@/core/plan';
import { isTold } from '../session/attempt';
import { Choice } from './choice';
import { Problem } from './problem';
import { Toggle } from './tick';
import { Known } from './typed-line';

/** `line`: fields beside each other over their line; `sheet`: one below the other, as in a dialog. */
type Layout = 'line' | 'sheet';
/** How fields lie, and where what is wrong with one of them is told: in a line below all, in a sheet below the field. */
const LayoutContext = createContext<{ readonly layout: Layout; readonly told: string }>({
  layout: 'line',
  told: '',
});

export interface TypedForm<V extends FieldValues> {
  readonly form: UseFormReturn<V>;
  /** Does what the form is for, or something else with the same values. */
  readonly submit: (instead?: (values: V) => void) => void;
}

/**
 * A form of several fields. What it does is an operation of the core, whose schema checks what was typed: a refusal comes to the
 * field it is about, which gets the focus, else below the form; what was typed stays. When it went through, the fields named
 * in `clear` are as they were in the beginning, and `focus` has the focus.
 */
export function useTypedForm<V extends FieldValues>(
  initial: DefaultValues<V>,
  act: (values: V) => void | Promise<void>,
  { clear = [], focus }: { readonly clear?: readonly Path<V>[]; readonly focus?: Path<V> } = {},
): TypedForm<V> {
  const form = useForm<V>({ defaultValues: initial });
  const submit = (instead?: (values: V) => void) =>
    void form.handleSubmit(async (values) => {
      try {
        // What it closes is closed before the next key is heard, which would else go to it.
        await flushSync(() => (instead ?? act)(values));
        for (const field of clear) form.resetField(field);
        if (focus) form.setFocus(focus);
      } catch (error) {
        refuse(form, error);
      }
    })();
  return { form, submit };
}

/** Shows a refusal at its field, or below where it has none; a defect flies on. */
function refuse<V extends FieldValues>(form: UseFormReturn<V>, error: unknown): void {
  if (!isTold(error)) throw error;
  const values = form.getValues();
  const path = error instanceof Refusal ? [...error.path].reverse() : [];
  const field = path.find((part) => part in values);
  form.setError(
    field === undefined ? 'root' : (String(field) as Path<V>),
    { message: error.message },
    { shouldFocus: field !== undefined },
  );
}

export function Form<V extends FieldValues>({
  form: { form, submit },
  label,
  layout = 'line',
  className,
  remedy,
  children,
}: {
  form: TypedForm<V>;
  label?: string;
  layout?: Layout;
  className?: string;
  /** Beside what is wrong: what mends it. */
  remedy?: ReactNode;
  children: ReactNode;
}) {
  const told = useId();
  const { root, ...errors } = form.formState.errors;
  const own = layout === 'line' ? Object.values(errors)[0]?.message : undefined;
  const problem = root?.message ?? own;
  return (
    <FormProvider {...form}>
      <LayoutContext value={{ layout, told }}>
        <form
          aria-label={label}
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            submit();
          }}
          className={className ?? (layout === 'line' ? 'flex flex-wrap items-end gap-2 py-1' : 'grid gap-2')}
        >
          {children}
          <Problem id={told} text={String(problem ?? '')} className="w-full text-[14px]">
            {remedy}
          </Problem>
        </form>
      </LayoutContext>
    </FormProvider>
  );
}

const around: Readonly<Record<Layout, string>> = {
  line: 'text-[13px]',
  sheet: 'grid grid-cols-[9rem_1fr] items-center gap-x-2',
};

interface LineProps {
  readonly name: string;
  readonly label: string;
  readonly placeholder?: string;
  readonly mono?: boolean;
  readonly width?: number | string;
  /** Names to choose from while typing. */
  readonly known?: readonly string[];
  readonly autoFocus?: boolean;
  readonly numeric?: boolean;
  readonly id?: string;
  /** Something else was typed. */
  readonly onType?: (text: string) => void;
}

/** A line to type in, with what is wrong below it. */
export function FormLine(props: LineProps) {
  const { name, label, placeholder, mono, width, known, autoFocus, numeric, id, onType } = props;
  const { layout, told } = useContext(LayoutContext);
  const { register, formState, clearErrors } = useFormContext();
  const own = useId();
  const error = formState.errors[name]?.message;
  const wide = width === undefined ? {} : { style: { width } };
  return (
    <label
      className={`${around[layout]} ${width === undefined && layout === 'line' ? 'min-w-[110px] flex-1' : ''}`}
      {...wide}
    >
      <span>{label}</span>
      <input
        {...register(name, {
          onChange: (event: { target: { value: string } }) => {
            clearErrors([name, 'root']);
            onType?.(event.target.value);
          },
        })}
        id={id}
        autoFocus={autoFocus}
        className={`field field-line max-[699px]:min-h-touch ${mono ? 'mono' : ''}`}
        placeholder={placeholder}
        autoComplete="off"
        spellCheck={false}
        aria-label={label}
        aria-invalid={error !== undefined}
        aria-describedby={error === undefined ? undefined : layout === 'line' ? told : `${own} problem`}
        {...(numeric ? { inputMode: 'numeric' as const } : {})}
        {...(known ? { list: `${own} known` } : {})}
      />
      {known && <Known id={`${own} known`} names={known} />}
      <FieldProblem name={name} id={`${own} problem`} />
    </label>
  );
}

/** What is wrong with a field of a sheet, below it; a line tells it below all of them. */
function FieldProblem({ name, id }: { name: string; id?: string }) {
  const { layout } = useContext(LayoutContext);
  const error = useFormContext().formState.errors[name]?.message;
  if (error === undefined || layout !== 'sheet') return null;
  return (
    <span
      id={id}
      role="alert"
      className="col-span-2 block max-w-[42ch] border-l-4 border-stop bg-sheet px-2 py-1 text-[13px] leading-snug text-stop"
    >
      {String(error)}
    </span>
  );
}

/** One of a few. */
export function FormChoice<T extends string>({
  name,
  label,
  options,
  width,
  disabled,
  autoFocus,
  below,
}: {
  name: string;
  label: string;
  options: Parameters<typeof Choice<T>>[0]['options'];
  width?: number;
  disabled?: boolean;
  autoFocus?: boolean;
  /** What the chosen one means. */
  below?: ReactNode;
}) {
  const { layout } = useContext(LayoutContext);
  return (
    <Controller
      name={name}
      render={({ field }) => (
        <label className={around[layout]} {...(width === undefined ? {} : { style: { width } })}>
          <span>{label}</span>
          <Choice
            lined
            label={label}
            value={field.value as T}
            options={options}
            onChoose={field.onChange}
            {...(disabled ? { disabled } : {})}
            {...(autoFocus ? { autoFocus } : {})}
          />
          {below}
          <FieldProblem name={name} />
        </label>
      )}
    />
  );
}

export function FormTick({ name, label }: { name: string; label: string }) {
  return (
    <Controller
      name={name}
      render={({ field }) => (
        <Toggle label={label} checked={field.value === true} onChange={field.onChange} />
      )}
    />
  );
}
