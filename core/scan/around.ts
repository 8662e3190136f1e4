/** Which triangles meet each corner, one list after another: those of corner v are `of[first[v]]` to `of[first[v + 1] − 1]`. */
export interface Around {
  first: Uint32Array;
  of: Uint32Array;
}

export function trianglesAround(triangles: Uint32Array, corners: number): Around {
  const first = new Uint32Array(corners + 1);
  for (let i = 0; i < triangles.length; i++) first[triangles[i]! + 1]!++;
  for (let v = 0; v < corners; v++) first[v + 1]! += first[v]!;
  const of = new Uint32Array(triangles.length);
  const next = first.slice(0, corners);
  for (let i = 0; i < triangles.length; i++) of[next[triangles[i]!]!++] = Math.floor(i / 3);
  return { first, of };
}
