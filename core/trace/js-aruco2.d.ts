declare module 'js-aruco2' {
  interface Found {
    id: number;
    corners: { x: number; y: number }[];
  }
  const aruco: {
    AR: {
      DICTIONARIES: Record<string, { nBits: number; tau: number | null; codeList: unknown[] }>;
      Dictionary: new (name: string) => { codeList: string[] };
      Detector: new (asked: {
        dictionaryName: string;
        maxHammingDistance: number;
      }) => { detect(picture: { width: number; height: number; data: Uint8ClampedArray }): Found[] };
    };
  };
  export default aruco;
}
declare module 'js-aruco2/src/dictionaries/aruco_5x5_1000.js';
