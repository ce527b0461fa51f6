/** The lock that keeps whoever writes a pantry to themselves. */
import { type EntityManager, LockMode } from "@mikro-orm/postgresql";
import type { Id } from "../core/schema/id";
import { PantryRow } from "./entities";

/** The row of a pantry, which no one else writes until the transaction ends; null where it is gone. */
export const locked = (em: EntityManager, pantry: Id) =>
  em.findOne(PantryRow, { id: pantry }, { fields: ["revision"], lockMode: LockMode.PESSIMISTIC_WRITE });
