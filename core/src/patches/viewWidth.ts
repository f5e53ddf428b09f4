/** m to both sides of one's way within which a plant of a stage is seen among others, from practice: by its silhouette in the library. */
const SEEN_WITHIN_M: Readonly<Record<string, number>> = { seedling: 1, rosette: 2, tuber: 1, bolt: 6, flower: 8, pod: 6, shed: 4 }
/** Where nothing is said of the stage. */
const SEEN_WITHIN_ELSE_M = 2

/** m across that one walker sees of a stage, as long as nobody says how far they saw. */
export const viewWidth = (silhouette: string | null): number =>
  (silhouette === null ? null : SEEN_WITHIN_M[silhouette]) ?? SEEN_WITHIN_ELSE_M
