import type { FiguresAnswer, FiguresBy, OutreachFigure } from '../../contract/outreach-views.ts';
import { wilson } from '../../core/stats/accuracy.ts';
import type { Services } from '../services.ts';

interface SentRow {
  person: string;
  template: string | null;
  trigger: string;
  proof: string | null;
  proof_text: string | null;
  answered: number;
  meetings: number;
}

const TRIGGERS: Readonly<Record<string, string>> = {
  named: 'what set it off named',
  hinted: 'hinted at',
  out: 'left out',
};

/** How many messages went, were answered and led to a meeting, by what they have in common; the most first. */
export function outreachFigures({ outreach }: Services, by: FiguresBy): FiguresAnswer {
  const sent = outreach.db
    .prepare<[], SentRow>(
      `SELECT m.person, m.template, m.trigger, m.proof, m.proof_text,
         EXISTS (SELECT 1 FROM reply r WHERE r.message = m.id AND r.kind = 'answered') AS answered,
         EXISTS (SELECT 1 FROM reply r WHERE r.message = m.id AND r.meeting = 1) AS meetings
       FROM message m WHERE m.state IN ('sent', 'perhaps')`,
    )
    .all();
  const facts =
    by === 'industry' || by === 'level' ? outreach.facts.of(sent.map(({ person }) => person)) : null;
  const keyOf = (row: SentRow): { key: string; label: string } => {
    const one = facts?.get(row.person);
    switch (by) {
      case 'template':
        return { key: row.template ?? '', label: row.template ?? 'by hand' };
      case 'proof':
        return { key: row.proof ?? '', label: row.proof_text ?? 'none' };
      case 'trigger':
        return { key: row.trigger, label: TRIGGERS[row.trigger] ?? row.trigger };
      case 'industry':
        return { key: one?.company?.codes[0] ?? '', label: one?.company?.industry ?? 'unknown' };
      case 'level':
        return { key: one?.level ?? '', label: one?.level ?? 'unknown' };
    }
  };
  const figures = new Map<string, OutreachFigure>();
  for (const row of sent) {
    const { key, label } = keyOf(row);
    const figure = figures.get(key) ?? { key, label, sent: 0, answered: 0, meetings: 0, share: null };
    figures.set(key, figure);
    figure.sent++;
    figure.answered += row.answered;
    figure.meetings += row.meetings;
  }
  for (const figure of figures.values()) {
    const share = figure.answered / figure.sent;
    figure.share = { share, ...wilson(share, figure.sent) };
  }
  return {
    by,
    figures: [...figures.values()].sort((a, b) => b.sent - a.sent || a.label.localeCompare(b.label)),
  };
}
