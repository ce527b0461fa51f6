/** salty schema: the JSON Schema of the bundle, made of the kinds. */
import { bundleSchema } from "../core/exchange/schema";

export async function schemaCommand(): Promise<number> {
  process.stdout.write(`${JSON.stringify(bundleSchema(), null, 1)}\n`);
  return 0;
}
