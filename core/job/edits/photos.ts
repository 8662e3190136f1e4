import { z } from 'zod';
import { type JobDocument, Photo } from '../document';
import { Id } from '../fields';
import { defineEdit } from './define';
import { EditRefused } from './tools';

/** Edits of the photos of the object. */

function requirePhoto(document: JobDocument, id: string): void {
  if (!document.photos.some(p => p.id === id)) throw new EditRefused('That photo is no longer there.');
}

export const addPhoto = defineEdit(z.object({ kind: z.literal('add-photo'), photo: Photo }), {
  apply(document, { photo }) {
    if (document.photos.some(p => p.id === photo.id)) throw new EditRefused('This photo is already there.');
    return { ...document, photos: [...document.photos, photo] };
  },
  words: ({ photo }) => `Added the photo ${photo.label}`,
});

export const labelPhoto = defineEdit(
  z.object({ kind: z.literal('label-photo'), photoId: Id, label: Photo.shape.label }),
  {
    apply(document, { photoId, label }) {
      requirePhoto(document, photoId);
      return { ...document, photos: document.photos.map(p => (p.id === photoId ? { ...p, label } : p)) };
    },
    words: () => 'Named a photo',
  },
);

/** Marks on it are removed with it. */
export const removePhoto = defineEdit(z.object({ kind: z.literal('remove-photo'), photoId: Id }), {
  apply(document, { photoId }) {
    requirePhoto(document, photoId);
    const trace = document.traces?.find(t => t.photo === photoId);
    if (trace) throw new EditRefused('It is being traced on Measure: remove the trace first.');
    return {
      ...document,
      photos: document.photos.filter(p => p.id !== photoId),
      dimensions: document.dimensions.map(d => {
        if (d.mark?.on !== photoId) return d;
        const { mark: _, ...rest } = d;
        return rest;
      }),
    };
  },
  words: () => 'Removed a photo',
});
