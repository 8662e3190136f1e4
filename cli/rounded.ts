/** For answers: more digits than are meant say nothing. */
export const rounded = (x: number, decimals = 2) => Number(x.toFixed(decimals));
