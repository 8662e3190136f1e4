import { Router } from 'express';
import { ulid } from 'ulid';
import { type ImportedProfile, PROFILE_SCHEMA_VERSION, ProfileFile } from '../../contract/profile';
import { Calibration, type Workshop } from '../../core/job/workshop';
import type { App } from '../context';
import { HttpError, notFound } from '../errors';
import type { PieceFiles } from '../solids/tasks';
import { changeWorkshop, readWorkshop } from '../workshop/repository';

const MOST_CALIBRATIONS = 50;
const TYPES = { stl: 'model/stl', '3mf': 'model/3mf' } as const;

/** The calibration piece, and the profiles made from it; each is saved on its own. */
export function calibrationRoutes({ store, pool }: App): Router {
  const router = Router();
  // Always the same, so it is made once.
  let piece: Promise<PieceFiles> | undefined;

  router.get('/piece.:kind', async (req, res) => {
    const kind = (['stl', '3mf'] as const).find(k => k === req.params.kind);
    if (!kind) throw new HttpError(400, 'bad-input', 'The piece comes as 3mf or stl.');
    piece ??= pool.run('piece', {}).catch(error => {
      piece = undefined;
      throw error;
    });
    const files = await piece;
    res.set({
      'content-type': TYPES[kind],
      'content-disposition': `attachment; filename="sagoma-calibration-piece.${kind}"`,
      'cache-control': 'no-cache',
    });
    res.end(files[kind]);
  });

  router.put('/:id', async (req, res) => {
    const calibration = Calibration.parse({ ...req.body, id: req.params.id });
    const saved = await store.write(tx =>
      changeWorkshop(tx, shop => {
        requireOwn(shop, calibration);
        const all = shop.calibrations ?? [];
        // It keeps its place: in a list that reorders itself people press the wrong line.
        return withCalibrations(
          shop,
          all.some(c => c.id === calibration.id)
            ? all.map(c => (c.id === calibration.id ? calibration : c))
            : [...all, calibration],
        );
      }),
    );
    res.json(saved);
  });

  router.delete('/:id', async (req, res) => {
    const saved = await store.write(tx =>
      changeWorkshop(tx, shop => {
        const left = (shop.calibrations ?? []).filter(c => c.id !== req.params.id);
        if (left.length === (shop.calibrations ?? []).length) throw notFound('That calibration');
        return withCalibrations(shop, left);
      }),
    );
    res.json(saved);
  });

  router.get('/:id/profile.json', async (req, res) => {
    const { workshop } = await readWorkshop(store.db);
    const calibration = workshop.calibrations?.find(c => c.id === req.params.id);
    if (!calibration) throw notFound('That calibration');
    const printer = workshop.printers.find(p => p.id === calibration.printerId);
    const plastic = workshop.materials.find(m => m.id === calibration.materialId);
    const file: ProfileFile = {
      format: 'sagoma-printer-profile',
      schemaVersion: PROFILE_SCHEMA_VERSION,
      printer: { name: printer?.name ?? '', nozzle: calibration.nozzle ?? printer?.nozzle ?? 0.4 },
      plastic: { name: plastic?.name ?? '', polymer: plastic?.polymer },
      calibration,
    };
    res.set({ 'content-disposition': 'attachment; filename="sagoma-printer-profile.json"' });
    res.json(ProfileFile.parse(file));
  });

  router.post('/import', async (req, res) => {
    const file = ProfileFile.parse(req.body);
    const answer: ImportedProfile = { id: ulid(), notes: [] };
    await store.write(tx =>
      changeWorkshop(tx, shop => {
        const found = matched(file, shop);
        answer.notes = found.notes;
        const imported: Calibration = {
          ...file.calibration,
          id: answer.id,
          printerId: found.printerId,
          materialId: found.materialId,
          nozzle: file.printer.nozzle,
          // The caliper it was read with is not here: our first one is used to judge the readings.
          piece: file.calibration.piece && { ...file.calibration.piece, instrumentId: null },
        };
        return withCalibrations(shop, [...(shop.calibrations ?? []), imported]);
      }),
    );
    res.status(201).json(answer);
  });

  return router;
}

function requireOwn(shop: Workshop, { printerId, materialId }: Calibration): void {
  if (!shop.printers.some(p => p.id === printerId))
    throw new HttpError(422, 'bad-input', 'That printer is no longer in the workshop: choose another.');
  if (!shop.materials.some(m => m.id === materialId))
    throw new HttpError(422, 'bad-input', 'That plastic is no longer in the workshop: choose another.');
}

function withCalibrations(shop: Workshop, calibrations: Calibration[]): Workshop {
  if (calibrations.length > MOST_CALIBRATIONS)
    throw new HttpError(422, 'too-many', `At most ${MOST_CALIBRATIONS} calibrations: remove old ones first.`);
  return { ...shop, calibrations };
}

/** By name, a plastic also by its polymer; otherwise the first, and the answer says so. */
function matched({ printer, plastic }: ProfileFile, shop: Workshop) {
  const notes: string[] = [];
  const ownPrinter = shop.printers.find(p => p.name === printer.name);
  if (!ownPrinter)
    notes.push(`No printer here is called “${printer.name}”: choose which of yours it is for.`);
  const ownPlastic =
    shop.materials.find(m => m.name === plastic.name) ??
    shop.materials.find(m => m.polymer !== undefined && m.polymer === plastic.polymer);
  if (!ownPlastic)
    notes.push(`No plastic here is called “${plastic.name}”: choose which of yours it is for.`);
  return {
    printerId: (ownPrinter ?? shop.printers[0]!).id,
    materialId: (ownPlastic ?? shop.materials[0]!).id,
    notes,
  };
}
