/** For answers: more digits would mean nothing. */
export const rounded = (x: number, decimals = 2) => Number(x.toFixed(decimals));
