import { type Profile, ProfileError } from '../../core/files/profile/loops';
import { readProfile } from '../../core/files/profile/read-profile';

export interface ProfileRequest {
  text: string;
  unit?: Profile['unit'];
  /** What the largest outline is wide, where the maker knows, mm. */
  width?: number;
}
export type ProfileReply = { ok: true; profile: Profile } | { ok: false; message: string };

addEventListener('message', (message: MessageEvent<ProfileRequest>) => {
  const { text, unit, width } = message.data;
  let reply: ProfileReply;
  try {
    reply = { ok: true, profile: readProfile(text, { unit, width }) };
  } catch (error) {
    const reason =
      error instanceof ProfileError ? error.message : 'This file cannot be read. Export the profile again.';
    reply = { ok: false, message: reason };
  }
  postMessage(reply);
});
