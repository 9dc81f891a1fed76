import type { ReactNode } from 'react';
import { useEffect, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { t } from '../words';

/** What makes graphs, charts, drawings, idea maps and tables of values. */
async function fetchDialogs() {
  const [chart, figure, ideaMap, plot, table] = await Promise.all([
    import('./ChartDialog'),
    import('./FigureDialog'),
    import('../ideaMap/IdeaMapPanel'),
    import('./PlotDialog'),
    import('./TableDialog'),
  ]);
  return {
    ChartDialog: chart.default,
    FigureDialog: figure.default,
    IdeaMapPanel: ideaMap.default,
    PlotDialog: plot.default,
    TableDialog: table.default,
  };
}

/** The graph, chart, drawing, idea map or table of values that is being made. Where what makes it cannot be fetched, that is said. */
export default function PlotEditor({ desk }: { desk: PageDesk }): ReactNode {
  const edit = useStore(desk.plotEdit);
  const [dialogs, setDialogs] = useState<Awaited<ReturnType<typeof fetchDialogs>>>();
  useEffect(() => {
    if (!edit || dialogs) return;
    fetchDialogs().then(setDialogs, () => {
      desk.plotEdit.set(undefined);
      desk.tellProblem(t('plots.notReached'));
    });
  }, [edit, dialogs, desk]);
  if (!edit || !dialogs) return null;
  const { ChartDialog, FigureDialog, IdeaMapPanel, PlotDialog, TableDialog } = dialogs;
  const close = () => desk.plotEdit.set(undefined);
  switch (edit.is) {
    case 'plot':
      return <PlotDialog mark={edit.mark} formula={edit.formula} desk={desk} onClose={close} />;
    case 'chart':
      return <ChartDialog mark={edit.mark} desk={desk} onClose={close} />;
    case 'figure':
      return <FigureDialog mark={edit.mark} desk={desk} onClose={close} />;
    case 'ideaMap':
      return <IdeaMapPanel key={edit.around} around={edit.around} desk={desk} onClose={close} />;
    case 'table':
      return <TableDialog formula={edit.formula} desk={desk} onClose={close} />;
  }
}
