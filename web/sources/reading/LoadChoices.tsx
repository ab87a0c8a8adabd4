import { Choice } from './fields.tsx';

/** What becomes of a cell that is not understood. */
export type Unread = 'empty' | 'refuse' | 'nothing';

/** What a load does with cells that are not understood, and with companies that another source has, too. */
export function LoadChoices({
  unread,
  onUnread,
  joins,
  onJoins,
}: {
  unread: Unread;
  onUnread(unread: Unread): void;
  /** Whether what surely is one company becomes one; null where the rows are no companies. */
  joins: boolean | null;
  onJoins(joins: boolean): void;
}) {
  return (
    <>
      <Choice
        label="A cell that is not understood"
        value={unread}
        options={[
          ['empty', 'is left empty, its row is kept'],
          ['refuse', 'refuses its row'],
          ['nothing', 'and nothing is loaded'],
        ]}
        onChange={(next) => onUnread(next as Unread)}
      />
      {joins !== null && (
        <Choice
          label="What surely is a company of another source"
          value={joins ? 'joined' : 'apart'}
          options={[
            ['joined', 'is joined with it'],
            ['apart', 'stays beside it'],
          ]}
          onChange={(next) => onJoins(next === 'joined')}
        />
      )}
    </>
  );
}
