/** The day and the blocks of a volunteer, as they are typed. */
export interface HelpValues extends Record<string, unknown> {
  on: string | null
  blockIds: string[]
}

/** What was typed, as the endpoint takes it: of nobody but a volunteer. */
export const helpInput = (role: string, help: HelpValues) => (role === 'volunteer' ? { on: help.on ?? '', blockIds: help.blockIds } : null)
