/** px that the board of hours takes: its words beside it, or above it where there is no room. */
export const boardHeight = (narrow: boolean): number => (narrow ? 240 : 158)
