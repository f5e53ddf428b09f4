import { z } from 'zod'
import { problemSchema } from './common.js'
import type { Endpoint } from './endpoint.js'

/** Zod's JSON Schema of what travels on the wire: the input side of a body, the output side of a response. */
function schemaOf(schema: z.ZodType, io: 'input' | 'output'): unknown {
  const { $schema: _, ...rest } = z.toJSONSchema(schema, { io, unrepresentable: 'any' }) as Record<string, unknown>
  return rest
}

function parameters(schema: z.ZodType, place: 'path' | 'query'): unknown[] {
  const { properties = {}, required = [] } = schemaOf(schema, 'input') as { properties?: Record<string, unknown>; required?: string[] }
  return Object.entries(properties).map(([name, s]) => ({
    name,
    in: place,
    required: place === 'path' || required.includes(name),
    schema: s,
  }))
}

/** The OpenAPI 3.1 document of a set of endpoints, generated from their schemas. */
export function openApiDocument(endpoints: Readonly<Record<string, Readonly<Record<string, Endpoint>>>>): Record<string, unknown> {
  const paths: Record<string, Record<string, unknown>> = {}
  for (const [tag, group] of Object.entries(endpoints)) {
    for (const [name, e] of Object.entries(group)) {
      const inQuery = e.method === 'get' || e.upload !== undefined
      const body = e.upload ? { [e.upload]: {} } : inQuery ? undefined : { 'application/json': { schema: schemaOf(e.input, 'input') } }
      const path = e.path.replace(/:(\w+)/g, '{$1}')
      const operation = {
        operationId: `${tag}.${name}`,
        tags: [tag],
        summary: e.summary,
        parameters: [...parameters(e.params, 'path'), ...(inQuery ? parameters(e.input, 'query') : [])],
        ...(body ? { requestBody: { required: true, content: body } } : {}),
        responses: {
          '200': { description: 'As asked', content: { 'application/json': { schema: schemaOf(e.response, 'output') } } },
          default: {
            description: 'What is wrong and what to do',
            content: { 'application/problem+json': { schema: schemaOf(problemSchema, 'output') } },
          },
        },
      }
      paths[path] = { ...paths[path], [e.method]: operation }
    }
  }
  return { openapi: '3.1.0', info: { title: 'Bocado', version: '1' }, servers: [{ url: '/api/v1' }], paths }
}
