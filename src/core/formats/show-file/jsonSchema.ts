import { z } from 'zod';
import { SHOW_VERSION, showSchema } from '../../show';

/**
 * The shape of a show file as a JSON Schema (draft 2020-12). What no schema can say (ids that are
 * referred to exist, numbers that fit their unit) is said by the reader, in docs/show-file.md.
 */
export const showJsonSchema = (): object => ({
  title: `Hollow Lantern show, version ${SHOW_VERSION}`,
  ...z.toJSONSchema(showSchema, { unrepresentable: 'any', io: 'input', reused: 'ref' }),
});
