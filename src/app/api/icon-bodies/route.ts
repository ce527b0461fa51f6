import { IconBodiesAsked } from "@/server/queries";
import { jsonText } from "@/server/problem";
import { route } from "@/server/route";
import { iconBodies } from "@/server/use-cases/icons";

/** The drawings of up to 100 icons in one answer: /api/icon-bodies?name=eel&name=crab */
export const GET = route(
  async ({ query }) => {
    const answer = jsonText(JSON.stringify(await iconBodies(query.name)));
    answer.headers.set("cache-control", "public, max-age=86400");
    return answer;
  },
  { asks: IconBodiesAsked },
);
