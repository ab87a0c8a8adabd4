import { BarChart, CustomChart, LineChart, ScatterChart, TreemapChart } from 'echarts/charts';
import { AriaComponent, GridComponent, TooltipComponent } from 'echarts/components';
import { init, use as register, type EChartsType } from 'echarts/core';
import { CanvasRenderer, SVGRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';
import type { ChartOption } from './drawing.ts';

register([
  BarChart,
  CustomChart,
  LineChart,
  ScatterChart,
  TreemapChart,
  AriaComponent,
  GridComponent,
  TooltipComponent,
  CanvasRenderer,
  SVGRenderer,
]);

/** What was clicked in a chart: the data item's number within its series, and where on the page. */
export interface ChartClick {
  name: string;
  dataIndex: number;
  x: number;
  y: number;
  /** Whether Alt was held. */
  alt: boolean;
}

/** A chart as SVG that fills its box; its figures stand in a table beside it for those who cannot see it. */
export function EChart({
  option,
  height,
  label,
  onClick,
}: {
  option: ChartOption;
  height: number;
  label: string;
  onClick?(click: ChartClick): void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const chart = useRef<EChartsType | null>(null);
  const latest = useRef(onClick);
  useEffect(() => {
    latest.current = onClick;
  });
  useEffect(() => {
    const made = init(box.current, null, { renderer: 'svg' });
    chart.current = made;
    made.on('click', (event) => {
      const { offsetX, offsetY, altKey } = event.event?.event as unknown as MouseEvent;
      const bounds = box.current!.getBoundingClientRect();
      latest.current?.({
        name: event.name,
        dataIndex: event.dataIndex,
        x: bounds.left + offsetX,
        y: bounds.top + offsetY,
        alt: altKey,
      });
    });
    const observer = new ResizeObserver(() => made.resize());
    observer.observe(box.current!);
    return () => {
      observer.disconnect();
      made.dispose();
    };
  }, []);
  useEffect(() => {
    chart.current!.setOption(option, { notMerge: true });
  }, [option, height]);
  return <div ref={box} role="img" aria-label={label} className="w-full" style={{ height }} />;
}

/** A chart as a file: SVG as text, or PNG at twice the size, on paper. */
export async function chartFile(
  option: ChartOption,
  size: { width: number; height: number },
  kind: 'svg' | 'png',
): Promise<Blob> {
  const made = init(document.createElement('div'), null, {
    renderer: kind === 'svg' ? 'svg' : 'canvas',
    ...size,
  });
  try {
    made.setOption({ ...option, animation: false });
    if (kind === 'svg') return new Blob([made.renderToSVGString()], { type: 'image/svg+xml' });
    const canvas = made.renderToCanvas({ pixelRatio: 2, backgroundColor: option.backgroundColor as string });
    return await new Promise((resolve, reject) =>
      canvas.toBlob(
        (blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be made.'))),
        'image/png',
      ),
    );
  } finally {
    made.dispose();
  }
}
