#!/usr/bin/env node
/** The salty command. Built at first use, so that it works right after npm ci. */
import { pathToFileURL } from "node:url";
import { join } from "node:path";
import { ensureCli, root } from "../scripts/lib/setup.mjs";

process.env.SALTY_ROOT ??= root;
await ensureCli();
await import(pathToFileURL(join(root, "dist/salty.mjs")).href);
