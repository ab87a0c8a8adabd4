import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { useQuery } from '@tanstack/react-query';
import { useEffect, type ReactNode } from 'react';
import { useForm } from 'react-hook-form';
import { toast } from 'sonner';
import { SettingsBody } from '../../contract/settings.ts';
import { CURRENCIES } from '../../core/money/rates.ts';
import { call } from '../api.ts';
import { useSaveSettings, type Settings as Values } from '../app/settings.ts';
import { Button } from '../ui/controls.tsx';

const resolver = classValidatorResolver(SettingsBody);

/** How figures are shown, what "past 12 months" counts back from, and where the reference data comes from. */
export function Settings() {
  const { data } = useQuery({
    queryKey: ['settings'],
    queryFn: ({ signal }) => call<Values>('GET', '/settings', undefined, signal),
    staleTime: Infinity,
  });
  const save = useSaveSettings();
  const { register, handleSubmit, reset, setError, formState } = useForm<SettingsBody>({
    resolver,
    defaultValues: data,
  });
  useEffect(() => {
    if (data) reset(data);
  }, [data, reset]);
  const onSubmit = handleSubmit(async (values) => {
    try {
      // Only what was changed here, so that what another window changed stays.
      const all: Values = { ...values, asOf: values.asOf || null };
      const changed = Object.entries(all).filter(([key, value]) => value !== data?.[key as keyof Values]);
      await save(Object.fromEntries(changed));
      toast('Saved');
    } catch (error) {
      setError('root', { message: (error as Error).message });
    }
  });
  if (!data) return <main className="px-5 pt-4 text-soft">Reading settings …</main>;
  return (
    <main className="min-h-0 flex-1 overflow-auto px-5 pt-4 pb-6">
      <h1 className="title text-[25px]">Settings</h1>
      <form className="mt-5 max-w-2xl space-y-1" onSubmit={(event) => void onSubmit(event)}>
        <Row name="Your name" note="Lists, verdicts and spot checks say who made them.">
          <input
            {...register('person')}
            maxLength={60}
            className="field"
            aria-label="Your name"
            autoComplete="off"
          />
          {formState.errors.person && (
            <p role="alert" className="mt-1 text-[13px] text-cut">
              {formState.errors.person.message}
            </p>
          )}
        </Row>
        <Row
          name="Currency"
          note="Money is shown and exported in it; new revenue lines take it. Rates are rounded yearly averages, not for accounting."
        >
          <select {...register('currency')} className="field" aria-label="Currency">
            {CURRENCIES.map((code) => (
              <option key={code}>{code}</option>
            ))}
          </select>
        </Row>
        <Row name="Distance">
          <select {...register('distance')} className="field" aria-label="Distance">
            <option value="km">kilometres</option>
            <option value="miles">miles</option>
          </select>
        </Row>
        <Row name="Numbers">
          <select {...register('numbers')} className="field figure" aria-label="Numbers">
            <option value="comma">1,234.5</option>
            <option value="point">1.234,5</option>
            <option value="space">1 234,5</option>
          </select>
        </Row>
        <Row name="Dates">
          <select {...register('dates')} className="field figure" aria-label="Dates">
            <option value="words">30 Sep 2026</option>
            <option value="iso">2026-09-30</option>
            <option value="dotted">30.9.2026</option>
          </select>
        </Row>
        <Row name="Theme">
          <select {...register('theme')} className="field" aria-label="Theme">
            <option value="system">as the system</option>
            <option value="day">day</option>
            <option value="night">night</option>
          </select>
        </Row>
        <Row name="Paper">
          <select {...register('paper')} className="field" aria-label="Paper">
            <option value="A4">A4</option>
            <option value="Letter">Letter</option>
          </select>
        </Row>
        <Row name="As-of date" note="“Past 12 months” counts back from this day. Empty: today.">
          <input
            type="date"
            {...register('asOf', { setValueAs: (value: string | null) => value || null })}
            className="field figure"
            aria-label="As-of date"
          />
          {formState.errors.asOf && (
            <p role="alert" className="mt-1 text-[13px] text-cut">
              {formState.errors.asOf.message}
            </p>
          )}
        </Row>
        <Row name="Single keys" note="j, k, x, p and the like. Keys with Ctrl always work.">
          <label className="flex items-center gap-2">
            <input type="checkbox" {...register('keys')} /> on
          </label>
        </Row>
        {formState.errors.root && (
          <p role="alert" className="text-cut">
            {formState.errors.root.message}
          </p>
        )}
        <div className="pt-4">
          <Button look="ink" type="submit" disabled={formState.isSubmitting || !formState.isDirty}>
            Save
          </Button>
        </div>
      </form>
      <section className="mt-10 max-w-2xl border-t border-edge pt-4 text-[13px] text-soft">
        <h2 className="title text-base text-ink">Where the reference data comes from</h2>
        <p className="mt-2">
          Place data: GeoNames (
          <a
            className="underline"
            href="https://creativecommons.org/licenses/by/4.0/"
            target="_blank"
            rel="noopener noreferrer"
          >
            CC BY 4.0
          </a>
          ), adapted: names and regions changed. Outlines made with Natural Earth.
        </p>
        <p className="mt-2">
          NACE Rev. 2 and NACE Rev. 2.1 code lists: Eurostat, © European Union, CC BY 4.0; changes: titles
          joined to dotted codes, five NACE Rev. 2.1 titles taken from Eurostat’s structure workbook. Eurostat
          is not responsible for this rendering. ISTAT, ATECO 2025, CC BY 4.0 (keywords). ISIC Rev. 4: United
          Nations Statistics Division. NAICS 2022: U.S. Census Bureau. SIC 1987: U.S. Office of Management and
          Budget.
        </p>
      </section>
    </main>
  );
}

function Row({ name, note, children }: { name: string; note?: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[150px_1fr] gap-4 border-b border-rule py-3">
      <span className="pt-1.5 font-semibold">{name}</span>
      <div>
        {children}
        {note && <p className="mt-1 text-[13px] text-soft">{note}</p>}
      </div>
    </div>
  );
}
