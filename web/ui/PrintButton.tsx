import { Printer } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { callForFile } from '../api.ts';
import { useSettings } from '../app/settings.ts';
import { saveFile } from '../charts/save-file.ts';
import { Button } from './controls.tsx';

/** Fetches a page laid out for paper, made by the server, and offers it for saving. */
export function PrintButton({
  kind,
  body,
  name,
  label = 'Print',
}: {
  kind: 'sheet' | 'profile' | 'breakdown' | 'summary';
  body: object;
  name: string;
  label?: string;
}) {
  const [busy, setBusy] = useState(false);
  const { currency, paper } = useSettings();
  const print = async () => {
    setBusy(true);
    try {
      const file = await callForFile('/papers', { kind, size: paper, currency, ...body });
      saveFile(file, `${name.replace(/[^\p{L}\p{N} .-]/gu, '').trim() || kind}.pdf`);
    } catch (failure) {
      toast.error((failure as Error).message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Button
      disabled={busy}
      aria-label={label || 'Print'}
      title={`As PDF, ${paper}`}
      onClick={() => void print()}
    >
      <Printer size={14} /> {busy ? '…' : label}
    </Button>
  );
}
