import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { TitlesAnswer } from '../../contract/people.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Trouble } from '../ui/controls.tsx';
import { SortHead, type Order } from '../ui/SortHead.tsx';
import { TitleReading } from './TitleReading.tsx';

type By = 'title' | 'people' | 'department' | 'level' | 'read';

/** The titles that people have, with the department and level that each is read as, to be put right. */
export function Titles() {
  const format = useFormat();
  const [where, setWhere] = useSearchParams();
  const text = where.get('text') ?? '';
  const [order, setOrder] = useState<Order<By>>({ by: 'people', descending: true });
  const wanted = new URLSearchParams({
    text: useDeferredValue(text),
    by: order.by,
    descending: order.descending ? 'yes' : 'no',
  });
  const { data, error } = useQuery({
    queryKey: ['titles', wanted.toString()],
    queryFn: ({ signal }) => call<TitlesAnswer>('GET', `/people/titles?${wanted}`, undefined, signal),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const head = { order, onOrder: setOrder };
  return (
    <main className="flex min-h-0 flex-1 flex-col px-5 pt-3">
      <div className="flex items-center gap-4 border-b border-edge pb-2">
        <h1 className="title flex-1 text-[21px]">How titles are read</h1>
        <input
          type="search"
          aria-label="Find a title"
          placeholder="Find a title"
          className="field w-72"
          autoFocus
          value={text}
          onChange={(event) =>
            setWhere(event.target.value === '' ? {} : { text: event.target.value }, { replace: true })
          }
        />
      </div>
      <p className="py-2 text-soft">
        Department and level are what the source says, else what the words of the title tell. What is chosen
        here goes before both, for everybody who has the title, now and in every file to come.
      </p>
      <Trouble error={error} />
      <div className="min-h-0 flex-1 overflow-y-auto pb-6">
        {data && data.total === 0 && (
          <p className="py-4 text-soft">
            {text === '' ? 'Nobody here has a title yet.' : `No title has “${text}”.`}
          </p>
        )}
        {!data && !error && <p className="py-4 text-soft">Looking …</p>}
        {data && data.total > 0 && (
          <table className="w-full" aria-label="Titles">
            <colgroup>
              <col />
              <col className="w-32" />
              <col className="w-38" />
              <col className="w-80" />
              <col className="w-64" />
            </colgroup>
            <thead>
              <tr className="border-b border-edge text-[12px]">
                <SortHead by="title" label="Title" text {...head} />
                <SortHead by="people" label="People" right {...head} />
                <SortHead by="department" label="Department" text {...head} />
                <SortHead by="level" label="Level" text {...head} />
                <SortHead by="read" label="Read here" {...head} />
              </tr>
            </thead>
            <tbody>
              {data.titles.map((one) => (
                <tr key={one.title} className="border-b border-rule">
                  <td className="py-1.5 pr-5">{one.title}</td>
                  <td className="figure py-1.5 pr-5 text-right">{format.number(one.people)}</td>
                  <td className="py-1.5 pr-5 text-[13px]" colSpan={2}>
                    <TitleReading {...one} />
                    {one.readings > 1 && (
                      <span className="text-soft"> most of them; sources say otherwise of some</span>
                    )}
                  </td>
                  <td className="py-1.5 text-[13px] text-soft">
                    {one.own && `${one.own.person || 'somebody'}, ${format.date(one.own.at.slice(0, 10))}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {data && data.titles.length < data.total && (
          <p className="py-3 text-soft">
            The first <span className="figure">{format.number(data.titles.length)}</span> of{' '}
            <span className="figure">{format.number(data.total)}</span>; find the others by their words.
          </p>
        )}
      </div>
    </main>
  );
}
