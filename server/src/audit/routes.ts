import { endpoints, id } from '@bocado/contract'
import type { Router } from 'express'
import { z } from 'zod'
import { csvOf } from '../http/csv.js'
import { download, read, type Serving } from '../http/route.js'
import { listAudit, listSignInsAt } from './service.js'

/** Entries of a page while everything is written out. */
const AT_ONCE = 1000

/** Who changed what, for who leads a site: as a list, and as a file. */
export function auditRoutes(router: Router, serving: Serving): void {
  const { audit } = endpoints
  read(router, serving, audit.list, ({ deps, params, input }) => listAudit(deps.db, params.siteId, input))
  read(router, serving, audit.signIns, ({ deps, params }) => listSignInsAt(deps.db, params.siteId))
  download(
    router,
    serving,
    '/sites/:siteId/audit.csv',
    z.object({ siteId: id }),
    z.object({}),
    async ({ db }, { siteId }) => {
      const data: unknown[][] = []
      let before: number | undefined
      for (;;) {
        const { entries, isMore } = await listAudit(db, siteId, { before, most: AT_ONCE })
        for (const { at, by, action, entity, name, entityId, changes } of entries)
          for (const change of changes.length > 0 ? changes : [{ field: '', before: null, after: null }])
            data.push([at, by, action, entity, name, entityId, change.field, change.before, change.after])
        before = entries.at(-1)?.id
        if (!isMore) break
      }
      return {
        type: 'text/csv',
        fileName: 'changes.csv',
        body: csvOf({ fields: ['at', 'by', 'action', 'kind', 'name', 'id', 'field', 'before', 'after'], data }),
      }
    },
    'lead',
  )
}
