import { Navigate, useParams } from 'react-router';
import { STAGES, type Stage } from '../../core/work/stages';
import { useBench } from '../job/bench-context';
import { BriefStage } from './brief/BriefStage';
import { FitStage } from './fit/FitStage';
import { KeepStage } from './keep/KeepStage';
import { MeasureStage } from './measure/MeasureStage';
import { PrintStage } from './print/PrintStage';
import { ShapeStage } from './shape/ShapeStage';
import { TryStage } from './try/TryStage';

const PAGES: Record<Stage, () => React.JSX.Element> = {
  brief: BriefStage,
  measure: MeasureStage,
  fit: FitStage,
  shape: ShapeStage,
  print: PrintStage,
  try: TryStage,
  keep: KeepStage,
};

export default function StagePage() {
  const { stage } = useParams();
  const { job } = useBench('job');
  const known = STAGES.find(s => s === stage);
  if (!known) return <Navigate to={`/jobs/${job.id}/brief`} replace />;
  const Page = PAGES[known];
  return <Page />;
}
