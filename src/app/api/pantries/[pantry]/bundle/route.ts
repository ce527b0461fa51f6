import { BundleAsked } from "@/server/queries";
import { bundleOf, postBundle } from "@/server/replies";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

export const GET = pantryRoute(({ engine, host }) => bundleOf(engine, host));

export const POST = pantryRoute(postBundle, { asks: BundleAsked });
