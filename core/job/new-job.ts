import { type Recipe, softSideOf } from '../shape/recipes/recipe';
import { JOB_SCHEMA_VERSION, type JobDocument } from './document';
import { defaultWant } from './edits';
import type { Workshop } from './workshop';

/** A job for one part of a recipe: its guide's dimensions, unread, and its mates with their usual wants. */
export function newJob(title: string, recipe: Recipe, workshop: Workshop, materialId?: string): JobDocument {
  const material = workshop.materials.find(m => m.id === materialId) ?? workshop.materials[0]!;
  const part = 'part-1';
  return {
    schemaVersion: JOB_SCHEMA_VERSION,
    title,
    object: { name: '', note: '', leaves: false, goneAt: null, toRead: [] },
    brief: {
      purpose: '',
      ifItBreaks: null,
      mustHold: [],
      loads: [],
      hottestC: null,
      outdoors: false,
      obstacles: [],
      cautionsRead: [],
      priceToBuy: null,
    },
    parts: [
      {
        id: part,
        name: recipe.title,
        recipe: recipe.id,
        printerId: workshop.printers[0]!.id,
        materialId: material.id,
        pose: 'as-drawn',
        parameters: {},
      },
    ],
    dimensions: recipe.guide.map(step => ({
      id: step.key,
      name: step.key,
      label: step.label,
      kind: step.kind,
      critical: step.critical,
      guide: step.key,
      note: '',
      readings: [],
    })),
    photos: [],
    threads: [],
    mates: recipe.mates.map(spec => ({
      id: spec.id,
      name: spec.name,
      kind: 'fit',
      ours: { of: 'part', part, surface: spec.id },
      other: { of: 'object', dimension: spec.dimension },
      side: spec.side,
      soft: softSideOf(spec, material.flexible),
      want: defaultWant(material.flexible ? spec.flexibleWant : spec.want, workshop),
    })),
    service: { since: null, notes: [] },
  };
}
