import { expose } from 'comlink';
import { type Profile, ProfileError } from '../../core/files/profile/loops';
import { readProfile } from '../../core/files/profile/read-profile';

export interface ProfileRequest {
  text: string;
  unit?: Profile['unit'];
  /** The width of the largest outline, where the maker knows it, mm. */
  width?: number;
}
export type ProfileReply = { ok: true; profile: Profile } | { ok: false; message: string };

/** A problem with the file is an answer; one of our own errors is thrown, and the page reports it. */
const api = {
  read({ text, unit, width }: ProfileRequest): ProfileReply {
    try {
      return { ok: true, profile: readProfile(text, { unit, width }) };
    } catch (error) {
      if (error instanceof ProfileError) return { ok: false, message: error.message };
      throw error;
    }
  },
};
export type ProfileApi = typeof api;
expose(api);
